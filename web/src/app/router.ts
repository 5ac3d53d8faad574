import { createRouter, createWebHistory } from 'vue-router'
import RoundScreen from '@/screens/RoundScreen.vue'

export const router = createRouter({
  history: createWebHistory(),
  routes: [
    { path: '/', name: 'round', component: RoundScreen },
    { path: '/visits/:id(\\d+)/:view(arrival|unit|flue|gas|draft|air|string|exchanger|close)?', name: 'visit', component: () => import('@/screens/VisitScreen.vue'), props: (to) => ({ id: Number(to.params['id']), view: String(to.params['view'] || 'unit') }) },
    { path: '/sites/:id(\\d+)', name: 'site', component: () => import('@/screens/SiteScreen.vue'), props: (to) => ({ id: Number(to.params['id']) }) },
    { path: '/units/:id(\\d+)', name: 'unit', component: () => import('@/screens/UnitScreen.vue'), props: (to) => ({ id: Number(to.params['id']) }) },
    { path: '/shared/:token', name: 'shared', meta: { open: true }, component: () => import('@/screens/SharedScreen.vue'), props: (to) => ({ token: String(to.params['token']) }) },
    { path: '/shop/:sort(circuit|kind|model|rules)?', name: 'shop', component: () => import('@/screens/ShopScreen.vue'), props: (to) => ({ sort: String(to.params['sort'] || 'model') }) },
    { path: '/:rest(.*)*', redirect: '/' },
  ],
})
