import { computed, ref, watch, type ComputedRef, type Ref } from 'vue'
import { completions, type Completion } from './completions'
import { useLineHistory } from './useLineHistory'
import { useWords } from './useWords'

interface Doings {
  choose: (line: string) => void
  leave: () => void
}

export interface UseOptionsReturn {
  options: ComputedRef<Completion[]>
  /** The option that is chosen by the arrow keys; -1 for none. */
  active: Ref<number>
  keep: (line: string) => void
  pressed: (event: KeyboardEvent) => void
}

/** What the line may become, and the own lines before it, by the arrow keys. */
export function useOptions(
  visit: () => number,
  text: Ref<string>,
  doings: Doings,
): UseOptionsReturn {
  const active = ref(-1)
  const hidden = ref(false)
  const { data: words } = useWords(visit)
  const options = computed(() => (hidden.value ? [] : completions(text.value, words.value)))
  const { keep, turn } = useLineHistory(visit, text)
  watch(text, () => ([active.value, hidden.value] = [-1, false]))

  /** Tab and Enter take the chosen option; Escape closes the list first, then leaves the bar to the keys. */
  function pressed(event: KeyboardEvent): void {
    const chosen = options.value[active.value]
    if (event.key === 'Escape') {
      if (options.value.length) [hidden.value, active.value] = [true, -1]
      else doings.leave()
      return
    }
    if (event.key === 'ArrowDown' && options.value.length)
      active.value = (active.value + 1) % options.value.length
    else if (event.key === 'ArrowDown') turn(-1)
    else if (event.key === 'ArrowUp' && chosen) active.value -= 1
    else if (event.key === 'ArrowUp') turn(1)
    else if ((event.key === 'Tab' || event.key === 'Enter') && chosen) doings.choose(chosen.line)
    else return
    event.preventDefault()
  }

  return { options, active, keep, pressed }
}
