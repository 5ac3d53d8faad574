import { useQuery } from '@tanstack/vue-query'
import { useSessionStorage, useStorage } from '@vueuse/core'
import { computed, ref, watch, type ComputedRef, type Ref } from 'vue'
import { getWalks, keys } from '@/api/calls'
import type { ApiError, Schemas } from '@/api/client'
import { useBar } from '@/parts/desk/bar'
import { useDesk } from '@/parts/desk/desk'

type Stop = Schemas['WalkStopOut']
type Answer = Schemas['WalkAnswerOut']

export interface UseWalkReturn {
  walks: ComputedRef<Schemas['WalkOut'][]>
  walk: ComputedRef<Schemas['WalkOut'] | undefined>
  error: Ref<ApiError | null>
  /** The stop in hand; none when every one is answered or skipped. */
  current: ComputedRef<Stop | undefined>
  skipped: ComputedRef<Stop[]>
  left: ComputedRef<number>
  answered: (stop: Stop) => boolean
  choose: (walk: string) => void
  go: (stop: Stop) => void
  answer: (stop: Stop, answer: Answer) => void
  skip: () => void
  backToSkipped: () => void
}

/**
 * A walk through the visit's unit. What was said stands on the tape, so a walk goes on wherever it was left;
 * what was skipped is remembered on this device.
 */
export function useWalk(page: () => Schemas['VisitPage']): UseWalkReturn {
  const desk = useDesk()
  const bar = useBar()
  const { data, error } = useQuery<Schemas['WalksOut'], ApiError>({
    queryKey: computed(() => keys.walks(page().id, page().version)),
    queryFn: () => getWalks(page().id),
    placeholderData: (before) => before,
  })
  const chosen = useSessionStorage(`walk-${page().id}`, '')
  const passed = useStorage<Record<string, string[]>>(`walk-skipped-${page().id}`, {})
  const wanted = ref('') // the stop that was gone to by hand
  const written = ref<string[]>([]) // answered here, not yet told by the server
  let begun = '' // the words that were put into the bar
  const walks = computed(() => data.value?.walks ?? [])
  const walk = computed(() => walks.value.find((w) => w.key === chosen.value) ?? walks.value[0])
  const stops = computed(() => walk.value?.stops ?? [])
  const skips = computed(() => passed.value[walk.value?.key ?? ''] ?? [])
  const answered = (stop: Stop) => stop.answered || written.value.includes(stop.key)
  const open = computed(() => stops.value.filter((stop) => !answered(stop)))
  const skipped = computed(() => open.value.filter((stop) => skips.value.includes(stop.key)))
  const current = computed(
    () =>
      stops.value.find((stop) => stop.key === wanted.value) ??
      open.value.find((stop) => !skips.value.includes(stop.key)),
  )

  /** A stop that waits for a number opens the bar with its words: the number is all that is typed. */
  function begin(stop = current.value, line = stop?.begins ?? ''): void {
    begun = line
    if (stop && line && page().writable) desk.begin(line, stop.station)
  }
  function go(stop: Stop): void {
    wanted.value = stop.key
  }
  function answer(stop: Stop, given: Answer): void {
    if (given.begins || given.asks) {
      wanted.value = stop.key
      begin(stop, given.line)
    } else if (!given.done) {
      desk.write(given.line)
      leave(stop)
    }
  }
  function leave(stop: Stop): void {
    written.value = [...written.value, stop.key]
    wanted.value = ''
    begin()
  }
  function skip(): void {
    const [stop, key] = [current.value, walk.value?.key]
    if (!stop || !key) return
    passed.value = { ...passed.value, [key]: [...new Set([...skips.value, stop.key])] }
    wanted.value = ''
    bar.text = ''
    begin()
  }
  function backToSkipped(): void {
    passed.value = { ...passed.value, [walk.value?.key ?? '']: [] }
    wanted.value = ''
    begin()
  }

  /** A line that was written in the bar answers the stop that it was begun for; at another stage it is begun once more. */
  function heard(line: string): void {
    const stop = current.value
    const told = stop?.answers.find((one) => one.begins && line.startsWith(one.line.trim()))
    if (!stop || !told) return
    const rest = stop.answers.find((one) => one.begins && !one.done && one !== told)
    if (stop.begins && rest) begin(stop, rest.line)
    else leave(stop)
  }
  /** What the server knows counts. A stop that still lacks a reading is gone back to, unless something else is being typed. */
  function learn(): void {
    if (desk.waiting.value) return
    const went = written.value.length > 0
    written.value = []
    if (went && [begun, ''].includes(bar.text) && current.value?.begins !== begun) begin()
  }
  watch(
    () => bar.sent,
    (sent) => sent && heard(sent.line),
  )
  watch(data, learn)

  return {
    walks,
    walk,
    error,
    current,
    skipped,
    left: computed(() => open.value.length),
    answered,
    choose: (key) => ([chosen.value, wanted.value] = [key, '']),
    go,
    answer,
    skip,
    backToSkipped,
  }
}
