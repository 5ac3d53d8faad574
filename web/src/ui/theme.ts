import { defineStore } from 'pinia'
import { ref, watchEffect } from 'vue'

/** The daylight or the cellar theme, kept on the tablet. */
export const useTheme = defineStore('theme', () => {
  const cellar = ref(localStorage.getItem('theme') === 'cellar')
  watchEffect(() => {
    document.documentElement.dataset['theme'] = cellar.value ? 'cellar' : 'daylight'
    localStorage.setItem('theme', cellar.value ? 'cellar' : 'daylight')
  })
  return { cellar, toggle: () => (cellar.value = !cellar.value) }
})
