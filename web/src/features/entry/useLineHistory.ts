import { useSessionStorage } from '@vueuse/core'
import { computed, ref, type Ref } from 'vue'

const MOST_KEPT = 50

export interface UseLineHistoryReturn {
  /** Keep a line that was written. */
  keep: (line: string) => void
  /** Go back (1) or forward (-1) through the own lines of this visit; what was half typed comes back at the end. */
  turn: (steps: number) => void
}

/** The lines that were written on this visit from this tablet, for the arrow keys. */
export function useLineHistory(visit: () => number, text: Ref<string>): UseLineHistoryReturn {
  const lines = useSessionStorage<string[]>(
    computed(() => `lines-${visit()}`),
    [],
  )
  const back = ref(0)
  let halfTyped = ''

  function keep(line: string): void {
    lines.value = [...lines.value.filter((one) => one !== line), line].slice(-MOST_KEPT)
    back.value = 0
  }

  function turn(steps: number): void {
    const to = Math.min(Math.max(back.value + steps, 0), lines.value.length)
    if (to === back.value) return
    if (back.value === 0) halfTyped = text.value
    back.value = to
    text.value = to === 0 ? halfTyped : (lines.value.at(-to) ?? '')
  }

  return { keep, turn }
}
