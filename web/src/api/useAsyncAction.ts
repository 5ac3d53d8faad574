import { ref, type Ref } from 'vue'
import { ApiError } from '@/api/client'

export interface UseAsyncActionReturn {
  trouble: Ref<string>
  busy: Ref<boolean>
  run: (work: () => Promise<void>) => Promise<boolean>
}

/** Does work that may be refused: what was refused stands in ``trouble`` until the next one succeeds. */
export function useAsyncAction(): UseAsyncActionReturn {
  const trouble = ref('')
  const busy = ref(false)
  async function run(work: () => Promise<void>): Promise<boolean> {
    busy.value = true
    try {
      await work()
      trouble.value = ''
      return true
    } catch (error) {
      trouble.value = error instanceof ApiError ? error.message : String(error)
      return false
    } finally {
      busy.value = false
    }
  }
  return { trouble, busy, run }
}
