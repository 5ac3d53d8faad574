import { watch, type Ref } from 'vue'
import type { Schemas } from '@/api/client'
import { useBar } from '@/parts/desk/bar'

/** A visit begins at its last stage. */
export function useBarOfVisit(page: Ref<Schemas['VisitPage'] | undefined>): void {
  const bar = useBar()
  function reset(): void {
    bar.stage = page.value?.stages.at(-1)?.key ?? null
    bar.correcting = null
  }
  watch(() => page.value?.id, reset, { immediate: true })
}
