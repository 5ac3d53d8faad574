import { nextTick } from 'vue'
import type { Router } from 'vue-router'

/** Puts the focus on what a view is about when it is entered, so that a keyboard and a reader begin there. */
export function focusMain(): void {
  document.getElementById('main')?.focus({ preventScroll: true })
}

/** Watches the router for views that are entered; the first one keeps the focus where the page puts it. */
export function useFocusOnEntering(router: Router): void {
  router.afterEach((to, from) => {
    if (from.matched.length && to.path !== from.path) void nextTick(focusMain)
  })
}
