import { keepPreviousData, useQuery } from '@tanstack/vue-query'
import { computed, toValue, type MaybeRefOrGetter, type Ref } from 'vue'
import { getWorkings, keys } from '@/api/calls'
import type { ApiError, Schemas } from '@/api/client'

export interface UseWorkingsReturn {
  workings: Ref<Schemas['WorkingsOut'] | undefined>
  error: Ref<ApiError | null>
}

/** The computed figures of a visit; asked again whenever the tape grows. */
export function useWorkings(
  id: MaybeRefOrGetter<number>,
  version: MaybeRefOrGetter<number>,
): UseWorkingsReturn {
  const { data: workings, error } = useQuery<Schemas['WorkingsOut'], ApiError>({
    queryKey: computed(() => keys.workings(toValue(id), toValue(version))),
    queryFn: () => getWorkings(toValue(id)),
    placeholderData: keepPreviousData,
  })
  return { workings, error }
}
