import { createRouter, createWebHistory, type RouteRecordRaw } from 'vue-router'
import type { ViewName } from '@/features/visit/keyboard'
import RoundScreen from '@/screens/RoundScreen.vue'
import { VIEW_FILES } from '@/screens/visitViews'

declare module 'vue-router' {
  interface RouteMeta {
    /** Open to whoever has the address, signed in or not. */
    open?: boolean
    /** Which view of a visit it is. */
    view?: ViewName
  }
}

const id = { props: (to: { params: Record<string, unknown> }) => ({ id: Number(to.params['id']) }) }

const views = Object.entries(VIEW_FILES).map(([view, component]): RouteRecordRaw => ({
  path: view,
  name: `visit-${view}`,
  component,
  meta: { view: view as ViewName },
}))

export const router = createRouter({
  history: createWebHistory(),
  routes: [
    { path: '/', name: 'round', component: RoundScreen },
    {
      path: '/visits/:id(\\d+)',
      component: () => import('@/screens/VisitScreen.vue'),
      ...id,
      children: [
        { path: '', redirect: (to) => ({ name: 'visit-unit', params: to.params }) },
        ...views,
      ],
    },
    { path: '/board', component: () => import('@/screens/BoardScreen.vue') },
    {
      path: '/kept',
      component: () => import('@/screens/KeptScreen.vue'),
      children: [
        { path: '', redirect: '/kept/site' },
        { path: 'roles', component: () => import('@/features/people/PeopleView.vue') },
        { path: 'audit', component: () => import('@/features/people/AuditView.vue') },
        { path: 'lists', component: () => import('@/features/cards/ListsView.vue') },
        {
          path: 'lists/:id',
          component: () => import('@/features/cards/OneList.vue'),
          props: true,
        },
        {
          path: ':sort/:which(\\d+|new)?',
          component: () => import('@/features/cards/SortView.vue'),
          props: true,
        },
      ],
    },
    { path: '/sites/:id(\\d+)/door', component: () => import('@/screens/DoorScreen.vue'), ...id },
    { path: '/sites/:id(\\d+)', component: () => import('@/screens/SiteScreen.vue'), ...id },
    { path: '/units/:id(\\d+)', component: () => import('@/screens/UnitScreen.vue'), ...id },
    {
      path: '/shared/:token',
      meta: { open: true },
      component: () => import('@/screens/SharedScreen.vue'),
      props: true,
    },
    {
      path: '/check/:head?',
      meta: { open: true },
      component: () => import('@/screens/CheckScreen.vue'),
      props: true,
    },
    { path: '/own', component: () => import('@/screens/OwnScreen.vue') },
    {
      path: '/join/:token',
      meta: { open: true },
      component: () => import('@/screens/JoinScreen.vue'),
      props: true,
    },
    {
      path: '/shop',
      component: () => import('@/screens/ShopScreen.vue'),
      children: [
        { path: '', redirect: '/shop/model' },
        { path: 'model', component: () => import('@/features/shop/ModelEditor.vue') },
        { path: 'kind', component: () => import('@/features/shop/KindEditor.vue') },
        { path: 'circuit', component: () => import('@/features/shop/CircuitEditor.vue') },
        { path: 'walk', component: () => import('@/features/shop/WalkEditor.vue') },
        { path: 'rules', component: () => import('@/features/house/HouseRules.vue') },
      ],
    },
    { path: '/:rest(.*)*', redirect: '/' },
  ],
})
