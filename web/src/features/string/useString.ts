import { keepPreviousData, useQuery } from '@tanstack/vue-query'
import { computed, toValue, type MaybeRefOrGetter, type Ref } from 'vue'
import { getMeter, getString, keys } from '@/api/calls'
import type { ApiError, Schemas } from '@/api/client'
import type { Leads } from '@/parts/drawing/leads'

export interface UseStringReturn {
  string: Ref<Schemas['StringOut'] | undefined>
  error: Ref<ApiError | null>
}

/** The circuit of a visit in a state; asked again whenever the tape grows. */
export function useString(
  id: MaybeRefOrGetter<number>,
  version: MaybeRefOrGetter<number>,
  state: MaybeRefOrGetter<string>,
): UseStringReturn {
  const { data: string, error } = useQuery<Schemas['StringOut'], ApiError>({
    queryKey: computed(() => keys.string(toValue(id), toValue(version), toValue(state))),
    queryFn: () => getString(toValue(id), toValue(state)),
    placeholderData: keepPreviousData,
  })
  return { string, error }
}

/** What a voltmeter would show on a sound circuit between two leads; nothing until both lie on a node. */
export function useMeter(
  id: MaybeRefOrGetter<number>,
  state: MaybeRefOrGetter<string>,
  leads: MaybeRefOrGetter<Leads>,
): Ref<Schemas['MeterOut'] | null | undefined> {
  const ready = computed(() => toValue(leads).every(Boolean) && !!toValue(state))
  const { data } = useQuery<Schemas['MeterOut'] | null, ApiError>({
    queryKey: computed(() => keys.meter(toValue(id), toValue(state), ...toValue(leads))),
    queryFn: () => getMeter(toValue(id), toValue(state), ...toValue(leads)),
    enabled: ready,
  })
  return data
}
