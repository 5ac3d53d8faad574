import { watchEffect } from 'vue'

/** Keeps the window's title at what the screen shows, so that tabs and history tell them apart. */
export function useTitle(said: () => string | null | undefined): void {
  watchEffect(() => {
    document.title = said() ? `${said()} – Havrin` : 'Havrin'
  })
}
