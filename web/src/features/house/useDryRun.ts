import { useDebounceFn } from '@vueuse/core'
import { ref, watch, type Ref } from 'vue'
import { tryHouse } from '@/api/calls'
import type { Schemas } from '@/api/client'
import { useAsyncAction } from '@/api/useAsyncAction'

const TRY_AFTER_MS = 500

export interface UseDryRunReturn {
  found: Ref<Schemas['DryRunOut'] | null>
  trouble: Ref<string>
}

/** What changed rules would make of the last visits, asked a moment after the last change; nothing is kept. */
export function useDryRun(
  rules: () => Record<string, string | number>,
  differs: () => boolean,
): UseDryRunReturn {
  const found = ref<Schemas['DryRunOut'] | null>(null)
  const { trouble, run } = useAsyncAction()
  const ask = useDebounceFn(() => {
    if (differs()) void run(async () => void (found.value = await tryHouse(rules())))
  }, TRY_AFTER_MS)
  watch(rules, () => {
    if (differs()) void ask()
    else found.value = null
  })
  return { found, trouble }
}
