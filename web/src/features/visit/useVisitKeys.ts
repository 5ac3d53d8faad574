import { useEventListener } from '@vueuse/core'
import type { Phase } from '@/parts/desk/bar'
import { actionFor, type KeyAction, type ViewName } from './keyboard'

type Plain = Exclude<KeyAction['kind'], 'view' | 'phase'>
export type KeyDoings = Record<Plain, () => void> & {
  view: (view: ViewName) => void
  phase: (phase: Phase) => void
}

/** The keys outside the bar: `doings` has one doing for each kind of action. */
export function useVisitKeys(ready: () => boolean, doings: KeyDoings): void {
  useEventListener(window, 'keydown', (event: KeyboardEvent) => {
    const action = actionFor(event)
    if (!action || !ready()) return
    event.preventDefault()
    if (action.kind === 'view') doings.view(action.view)
    else if (action.kind === 'phase') doings.phase(action.phase)
    else doings[action.kind]()
  })
}
