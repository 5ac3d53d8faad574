import { useQuery, useQueryClient } from '@tanstack/vue-query'
import { computed, ref, watch, type ComputedRef, type Ref } from 'vue'
import type { ApiError, Schemas } from '@/api/client'
import { firmKeys, getWork, stopWork } from '@/api/firm'

export interface UseWorkReturn {
  work: Ref<Schemas['WorkOut'] | undefined>
  going: ComputedRef<boolean>
  /** Share done, 0 to 1; null while nobody knows of how much. */
  share: ComputedRef<number | null>
  follow: (work: Schemas['WorkOut']) => void
  stop: () => Promise<void>
}

const LOOK_MS = 700

/** Long work that the server does meanwhile: looked at until it ends, and then told. */
export function useWork(ended: () => void): UseWorkReturn {
  const cache = useQueryClient()
  const id = ref('')
  const { data: work } = useQuery<Schemas['WorkOut'], ApiError>({
    queryKey: computed(() => firmKeys.work(id.value)),
    queryFn: () => getWork(id.value),
    enabled: computed(() => !!id.value),
    refetchInterval: ({ state }) => (state.data && !isGoing(state.data) ? false : LOOK_MS),
  })
  const going = computed(() => !!id.value && (!work.value || isGoing(work.value)))
  watch(
    () => work.value?.state,
    (state) => {
      if (state && work.value && !isGoing(work.value)) ended()
    },
  )
  return {
    work,
    going,
    share: computed(() =>
      work.value?.steps ? Math.min(1, work.value.done / work.value.steps) : null,
    ),
    follow: (asked) => {
      id.value = asked.id
      cache.setQueryData(firmKeys.work(asked.id), asked)
    },
    stop: async () => void cache.setQueryData(firmKeys.work(id.value), await stopWork(id.value)),
  }
}

function isGoing(work: Schemas['WorkOut']): boolean {
  return work.state === 'waiting' || work.state === 'running'
}
