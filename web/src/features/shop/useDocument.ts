import { useQuery, useQueryClient } from '@tanstack/vue-query'
import { computed, ref, watch, type ComputedRef, type Ref } from 'vue'
import { getDocuments, keys, type Sort } from '@/api/calls'
import type { ApiError, Schemas } from '@/api/client'
import { useAsyncAction } from '@/api/useAsyncAction'

const WAIT_MS = 350

/** What every document of the shop has. */
export interface Named {
  key: string
  name: string
}
/** How one sort of document is fetched, checked and kept. */
export interface Calls<D extends Named, C> {
  load: (key: string) => Promise<D>
  check: (document: D) => Promise<C>
  keep: (document: D, why: string) => Promise<Schemas['ShopList']>
}

export interface UseDocumentReturn<D extends Named, C> {
  list: Ref<Schemas['ShopList'] | undefined>
  document: Ref<D | null>
  check: Ref<C | null>
  shipped: ComputedRef<boolean>
  trouble: Ref<string>
  kept: Ref<boolean>
  why: Ref<string>
  open: (key: string) => Promise<boolean>
  change: (next: D) => void
  copy: () => void
  keep: () => Promise<boolean>
  recheck: () => Promise<boolean>
}

/** One sort of the shop's documents: one is opened, changed, checked a moment after every change, and kept. */
export function useDocument<D extends Named, C>(
  sort: Sort,
  calls: Calls<D, C>,
): UseDocumentReturn<D, C> {
  const cache = useQueryClient()
  const { data: list } = useQuery<Schemas['ShopList'], ApiError>({
    queryKey: keys.documents(sort),
    queryFn: () => getDocuments(sort),
  })
  const document = ref<D | null>(null) as Ref<D | null>
  const check = ref<C | null>(null) as Ref<C | null>
  const { trouble, run } = useAsyncAction()
  const kept = ref(true)
  const why = ref('')
  const shipped = computed(
    () => !!list.value?.documents.find((row) => row.key === document.value?.key)?.shipped,
  )
  let timer = 0

  const recheck = () =>
    run(async () => {
      if (document.value) check.value = await calls.check(document.value)
    })
  const open = (key: string) =>
    run(async () => {
      document.value = await calls.load(key)
      kept.value = true
    })
  function change(next: D): void {
    document.value = next
    kept.value = false
  }
  function copy(): void {
    if (document.value)
      change({
        ...document.value,
        key: `${document.value.key}_own`,
        name: `${document.value.name}, our own`,
      })
  }
  const keep = () =>
    run(async () => {
      if (!document.value) return
      cache.setQueryData(keys.documents(sort), await calls.keep(document.value, why.value))
      why.value = ''
      void cache.invalidateQueries({ queryKey: ['shop'] })
      kept.value = true
    })
  watch(document, () => {
    window.clearTimeout(timer)
    timer = window.setTimeout(() => void recheck(), WAIT_MS)
  })
  return { list, document, check, shipped, trouble, kept, why, open, change, copy, keep, recheck }
}
