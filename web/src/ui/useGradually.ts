import { useRafFn } from '@vueuse/core'
import { computed, shallowRef, toValue, watch, type ComputedRef, type MaybeRefOrGetter } from 'vue'

/**
 * How many things of a long list are drawn: `portion` at once, as many more with every frame until all are.
 * A list that is drawn stays so; what comes to it later is drawn in the frames after.
 */
export function useGradually(
  count: MaybeRefOrGetter<number>,
  portion: number,
): ComputedRef<number> {
  const drawn = shallowRef(portion)
  const frames = useRafFn(
    () => {
      drawn.value += portion
      if (drawn.value >= toValue(count)) frames.pause()
    },
    { immediate: false },
  )
  watch(
    () => toValue(count),
    (many) => many > drawn.value && frames.resume(),
    { immediate: true },
  )
  return computed(() => Math.min(drawn.value, toValue(count)))
}
