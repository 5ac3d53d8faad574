import { onUnmounted, ref, watch, type Ref } from 'vue'
import { readBack } from '@/api/calls'
import { ApiError, type Schemas } from '@/api/client'
import type { Phase, Stage } from '@/parts/desk/bar'

const PAUSE_MS = 60
/** A line that stands in the bar is asked about again while the server is silent. */
const AGAIN_MS = 2000

export interface UseReadBackReturn {
  said: Ref<Schemas['ReadBack'] | null>
  /** True when the server could not be asked: the line can be kept, not read back. */
  silent: Ref<boolean>
  /** The answer to this very line as it stands; null where none is there yet. */
  answered: () => Schemas['ReadBack'] | null
}

/** What the server understands of the line while it is typed. */
export function useReadBack(
  visit: () => number,
  text: Ref<string>,
  stage: Ref<Stage | null>,
  phase: Ref<Phase>,
): UseReadBackReturn {
  const said = ref<Schemas['ReadBack'] | null>(null)
  const silent = ref(false)
  let asked: AbortController | undefined
  let timer = 0
  let heard = ''

  async function ask(): Promise<void> {
    asked?.abort()
    const line = text.value
    if (!line.trim()) {
      said.value = null
      return
    }
    const mine = (asked = new AbortController())
    try {
      const answer = await readBack(
        visit(),
        { text: line, stage: stage.value, phase: phase.value },
        mine.signal,
      )
      if (!mine.signal.aborted) [said.value, silent.value, heard] = [answer, false, line]
    } catch (error) {
      if (mine.signal.aborted) return
      ;[said.value, silent.value] = [null, error instanceof ApiError && error.unreachable]
      if (silent.value) timer = window.setTimeout(() => void ask(), AGAIN_MS)
    }
  }

  const answered = () => (heard === text.value ? said.value : null)

  watch([text, stage, phase], () => {
    heard = ''
    window.clearTimeout(timer)
    if (!text.value.trim()) void ask()
    else timer = window.setTimeout(() => void ask(), PAUSE_MS)
  })
  onUnmounted(() => window.clearTimeout(timer))
  return { said, silent, answered }
}
