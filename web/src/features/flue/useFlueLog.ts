import { useQuery, useQueryClient } from '@tanstack/vue-query'
import { useIntervalFn } from '@vueuse/core'
import { computed, ref, watch, type ComputedRef, type Ref } from 'vue'
import { answerLog, getLog, getLogShare, keys, mapLog, sendLog, windowMeans } from '@/api/calls'
import { ApiError, type Schemas } from '@/api/client'
import { useOutbox } from '@/outbox/useOutbox'
import { useBar } from '@/parts/desk/bar'

export interface UseFlueLogReturn {
  log: Ref<Schemas['LogPage'] | undefined>
  /** The share of a log that was sent; null while none is. */
  progress: Ref<number | null>
  /** The share of it that the server has read; null before it begins. */
  read: Ref<number | null>
  trouble: Ref<string>
  window: ComputedRef<[number, number] | null>
  means: ComputedRef<Schemas['MeanOut'][]>
  busy: Ref<boolean>
  open: (id: string) => void
  take: (file: File, instrument: number | null) => Promise<void>
  map: (mapping: Schemas['MappingIn']) => Promise<void>
  answer: (answer: Schemas['AnswerIn']) => Promise<void>
  choose: (range: [number, number]) => Promise<void>
  write: () => void
}

const ASK_MS = 500
/** The share that is read; a question that fails is asked again, and hinders nothing. */
const readOf = (upload: string) => getLogShare(upload).catch(() => null)

/** One analyzer log on the page: taken in, mapped, its window chosen, its means written on the tape. */
export function useFlueLog(visit: () => number): UseFlueLogReturn {
  const cache = useQueryClient()
  const bar = useBar()
  const outbox = useOutbox()
  const id = ref<string | null>(null)
  const progress = ref<number | null>(null)
  const read = ref<number | null>(null)
  const trouble = ref('')
  const busy = ref(false)
  const chosen = ref<{ range: [number, number]; means: Schemas['MeanOut'][] } | null>(null)
  const { data: log } = useQuery<Schemas['LogPage'], ApiError>({
    queryKey: computed(() => keys.log(id.value ?? '')),
    queryFn: () => getLog(id.value ?? ''),
    enabled: computed(() => id.value !== null),
    staleTime: Infinity,
  })
  watch(id, () => (chosen.value = null))
  const steady = computed<[number, number] | null>(() => {
    const found = log.value?.trace?.steady
    return found ? [found.low, found.high] : null
  })

  async function guarded(work: () => Promise<void>): Promise<void> {
    trouble.value = ''
    busy.value = true
    try {
      await work()
    } catch (error) {
      trouble.value = error instanceof ApiError ? error.message : String(error)
    } finally {
      busy.value = false
      progress.value = null
    }
  }

  function keep(page: Schemas['LogPage']): void {
    cache.setQueryData(keys.log(page.id), page)
    id.value = page.id
  }

  return {
    log,
    progress,
    read,
    trouble,
    busy,
    window: computed(() => chosen.value?.range ?? steady.value),
    means: computed(() => chosen.value?.means ?? log.value?.means ?? []),
    open: (which) => (id.value = which),
    take: (file, instrument) =>
      guarded(async () => {
        const name = crypto.randomUUID()
        ;[progress.value, read.value] = [0, null]
        const { resume, pause } = useIntervalFn(
          async () => (read.value = await readOf(name)),
          ASK_MS,
          {
            immediate: false,
          },
        )
        const onProgress = (share: number) => {
          progress.value = share
          if (share >= 1) resume()
        }
        try {
          keep(await sendLog(visit(), file, instrument, name, onProgress))
        } finally {
          pause()
        }
      }),
    map: (mapping) =>
      guarded(async () => {
        chosen.value = null
        if (id.value) keep(await mapLog(id.value, mapping))
      }),
    answer: (given) =>
      guarded(async () => {
        chosen.value = null
        if (id.value) keep(await answerLog(id.value, given))
      }),
    choose: (range) =>
      guarded(async () => {
        if (id.value)
          chosen.value = {
            range,
            means: await windowMeans(id.value, { start_s: range[0], end_s: range[1] }),
          }
      }),
    write: () => {
      const range = chosen.value?.range ?? steady.value
      if (!id.value || !range) return
      const body = { start_s: range[0], end_s: range[1], stage: bar.stage, phase: bar.phase }
      outbox.add(visit(), { kind: 'trace', what: 'log_means', source: id.value, body })
    },
  }
}
