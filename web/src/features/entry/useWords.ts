import { useQuery } from '@tanstack/vue-query'
import { computed } from 'vue'
import { getWords, keys } from '@/api/calls'
import type { ApiError, Schemas } from '@/api/client'

/** The lines that can be picked at the visit's unit; they are asked for once. */
export const useWords = (visit: () => number) =>
  useQuery<Schemas['Vocabulary'], ApiError>({
    queryKey: computed(() => keys.words(visit())),
    queryFn: () => getWords(visit()),
    staleTime: Infinity,
  })
