import { nextTick } from 'vue'
import type { Router } from 'vue-router'

/** Puts the focus on what a view is about, so that a keyboard and a reader begin there. */
export function focusMain(): void {
  document.getElementById('main')?.focus({ preventScroll: true })
}

/** A view begins at its top, wherever the one before was left. */
function beginAtTop(): void {
  const main = document.getElementById('main')
  if (main) main.scrollTop = 0
}

/** Whoever types keeps the field: a view may arrive late, and no letter goes astray. */
const isTyping = () => !!document.activeElement?.closest('input, textarea, select')

/** Watches the router for views that are entered; the first one keeps the focus where the page puts it. */
export function useFocusOnEntering(router: Router): void {
  router.afterEach((to, from) => {
    const entered = from.matched.length > 0 && to.path !== from.path
    if (!entered) return
    void nextTick(() => {
      beginAtTop()
      if (!isTyping()) focusMain()
    })
  })
}
