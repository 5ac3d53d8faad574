import { useQuery, useQueryClient } from '@tanstack/vue-query'
import { computed, toValue, type ComputedRef, type MaybeRefOrGetter, type Ref } from 'vue'
import { getVersion, getVisit, keys } from '@/api/calls'
import type { ApiError, Schemas } from '@/api/client'

const LOOK_MS = 4000

export interface UseVisitReturn {
  page: Ref<Schemas['VisitPage'] | undefined>
  error: Ref<ApiError | null>
  /** True while the server does not answer: what is shown may be old. */
  stale: ComputedRef<boolean>
  replace: (page: Schemas['VisitPage']) => void
}

/** The page of one visit; looks every few seconds whether somebody else wrote on its tape. */
export function useVisit(id: MaybeRefOrGetter<number>): UseVisitReturn {
  const cache = useQueryClient()
  const key = computed(() => keys.visit(toValue(id)))
  const { data: page, error } = useQuery<Schemas['VisitPage'], ApiError>({
    queryKey: key,
    queryFn: () => getVisit(toValue(id)),
    shallow: true, // a page is replaced whole: a watcher on each field of 500 entries would cost more than drawing
  })
  const { isError: stale } = useQuery<number, ApiError>({
    queryKey: computed(() => [...key.value, 'version']),
    queryFn: async () => {
      const version = await getVersion(toValue(id))
      if (page.value && version !== page.value.version)
        await cache.invalidateQueries({ queryKey: key.value, exact: true })
      return version
    },
    refetchInterval: LOOK_MS,
    retry: false,
  })
  return {
    page,
    error,
    stale: computed(() => stale.value),
    replace: (fresh) => cache.setQueryData(keys.visit(fresh.id), fresh),
  }
}
