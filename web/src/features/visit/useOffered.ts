import { computed, type Ref } from 'vue'
import type { Schemas } from '@/api/client'
import { useBar } from '@/parts/desk/bar'
import type { ViewName } from './keyboard'

/** Views that say themselves what comes next. */
const OWN_STEPS = new Set<ViewName>(['walk', 'close'])

/** What is offered next over the view in hand, except while a line is typed; null where there is no room or nothing to offer. */
export function useOffered(
  page: Ref<Schemas['VisitPage'] | undefined>,
  view: Ref<ViewName>,
  shown: () => boolean,
) {
  const bar = useBar()
  return computed(() => {
    const step = page.value?.standing.next_step
    const hidden = !shown() || bar.entering || OWN_STEPS.has(view.value)
    return step?.passes.length && !hidden ? step : null
  })
}
