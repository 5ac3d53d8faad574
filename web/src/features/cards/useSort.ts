import { useQuery } from '@tanstack/vue-query'
import { computed, toValue, type MaybeRefOrGetter, type Ref } from 'vue'
import type { ApiError, Schemas } from '@/api/client'
import { firmKeys, getForm } from '@/api/firm'

/** One sort of cards with its fields, as this person may use them. */
export function useSort(sort: MaybeRefOrGetter<string>): {
  form: Ref<Schemas['SortOut'] | undefined>
  error: Ref<ApiError | null>
} {
  const { data: form, error } = useQuery<Schemas['SortOut'], ApiError>({
    queryKey: computed(() => firmKeys.form(toValue(sort))),
    queryFn: () => getForm(toValue(sort)),
  })
  return { form, error }
}
