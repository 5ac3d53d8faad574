import { useMediaQuery } from '@vueuse/core'
import type { Ref } from 'vue'

/** Whether the screen is a phone's: panels become sheets, the bar gets a keypad. */
export const useNarrow = (): Ref<boolean> => useMediaQuery('(max-width: 800px)')
