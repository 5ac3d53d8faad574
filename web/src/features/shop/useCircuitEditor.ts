import { useQuery, useQueryClient } from '@tanstack/vue-query'
import { computed, ref, watch, type ComputedRef, type Ref } from 'vue'
import { checkCircuit, getCircuit, getCircuits, keepCircuit, keys } from '@/api/calls'
import { ApiError, type Schemas } from '@/api/client'
import type { CircuitDocument } from './circuitForm'

const WAIT_MS = 350

export interface UseCircuitEditorReturn {
  list: Ref<Schemas['CircuitList'] | undefined>
  document: Ref<CircuitDocument | null>
  check: Ref<Schemas['CircuitCheck'] | null>
  shipped: ComputedRef<boolean>
  state: Ref<string>
  trouble: Ref<string>
  kept: Ref<boolean>
  open: (key: string) => Promise<void>
  change: (next: CircuitDocument) => void
  keep: () => Promise<void>
}

/** The shop's circuits: one is opened, changed, checked a moment after every change, and kept. */
export function useCircuitEditor(): UseCircuitEditorReturn {
  const cache = useQueryClient()
  const { data: list } = useQuery<Schemas['CircuitList'], ApiError>({ queryKey: keys.circuits, queryFn: getCircuits })
  const document = ref<CircuitDocument | null>(null)
  const check = ref<Schemas['CircuitCheck'] | null>(null)
  const state = ref('')
  const trouble = ref('')
  const kept = ref(true)
  const shipped = computed(() => !!list.value?.circuits.find((row) => row.key === document.value?.key)?.shipped)
  let timer = 0

  async function run(): Promise<void> {
    if (!document.value) return
    try {
      check.value = await checkCircuit({ document: document.value, state: state.value })
      trouble.value = ''
    } catch (error) {
      trouble.value = error instanceof ApiError ? error.message : String(error)
    }
  }
  async function open(key: string): Promise<void> {
    document.value = (await getCircuit(key)) as unknown as CircuitDocument
    kept.value = true
  }
  function change(next: CircuitDocument): void {
    document.value = next
    kept.value = false
  }
  async function keep(): Promise<void> {
    if (!document.value) return
    try {
      cache.setQueryData(keys.circuits, await keepCircuit({ document: document.value, state: '' }))
      kept.value = true
      trouble.value = ''
    } catch (error) {
      trouble.value = error instanceof ApiError ? error.message : String(error)
    }
  }
  watch([document, state], () => {
    window.clearTimeout(timer)
    timer = window.setTimeout(() => void run(), WAIT_MS)
  })
  return { list, document, check, shipped, state, trouble, kept, open, change, keep }
}
