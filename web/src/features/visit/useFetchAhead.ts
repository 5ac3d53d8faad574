import { useTimeoutFn } from '@vueuse/core'
import { onScopeDispose, ref, type Ref } from 'vue'
import { useRouter } from 'vue-router'

const FETCH_AHEAD_MS = 1500

/**
 * Fetches the other views once the first one stands, so that they open in a cellar without signal.
 * True while a view was asked for that is not on this tablet and cannot be fetched.
 */
export function useFetchAhead(files: (() => Promise<unknown>)[]): Ref<boolean> {
  const router = useRouter()
  const missing = ref(false)
  const forget = [
    router.onError(() => (missing.value = true)),
    router.afterEach(() => (missing.value = false)),
  ]
  onScopeDispose(() => forget.forEach((stop) => stop()))
  useTimeoutFn(() => files.forEach((load) => void load().catch(() => undefined)), FETCH_AHEAD_MS)
  return missing
}
