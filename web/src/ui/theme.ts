import { useLocalStorage } from '@vueuse/core'
import { defineStore } from 'pinia'
import { computed, watchEffect } from 'vue'

/** The daylight or the cellar theme, kept on the tablet; every open page of it follows. */
export const useTheme = defineStore('theme', () => {
  const kept = useLocalStorage('theme', 'daylight')
  const cellar = computed(() => kept.value === 'cellar')
  watchEffect(() => (document.documentElement.dataset['theme'] = kept.value))
  return { cellar, toggle: () => void (kept.value = cellar.value ? 'daylight' : 'cellar') }
})
