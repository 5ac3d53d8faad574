import type { GlobalThemeOverrides } from 'naive-ui'

const FONT = "'Barlow Semi Condensed', 'Segoe UI', system-ui, sans-serif"

/** Naive UI's own parts in our colours. */
export function overrides(cellar: boolean): GlobalThemeOverrides {
  const ink = cellar ? '#f3f0e7' : '#1c2523'
  const plate = cellar ? '#1d2523' : '#fffefa'
  const accent = cellar ? '#62bcd8' : '#1d6c88'
  return {
    common: {
      fontFamily: FONT,
      fontSize: '16px',
      primaryColor: accent,
      primaryColorHover: accent,
      primaryColorPressed: accent,
      primaryColorSuppl: accent,
      textColorBase: ink,
      textColor1: ink,
      textColor2: ink,
      bodyColor: cellar ? '#131917' : '#f5f2ea',
      cardColor: plate,
      modalColor: plate,
      popoverColor: plate,
      inputColor: plate,
      borderRadius: '6px',
      heightMedium: '44px',
      heightLarge: '48px',
      fontSizeMedium: '16px',
      fontSizeLarge: '18px',
    },
  }
}
