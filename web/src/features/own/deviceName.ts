const BROWSERS: [RegExp, string][] = [
  [/Edg\//, 'Edge'],
  [/Firefox\//, 'Firefox'],
  [/Chrome\//, 'Chromium'],
  [/Safari\//, 'Safari'],
]
const SYSTEMS: [RegExp, string][] = [
  [/Android/, 'Android'],
  [/iPhone|iPad/, 'iOS'],
  [/Windows/, 'Windows'],
  [/Mac OS/, 'macOS'],
  [/Linux/, 'Linux'],
]
const named = (rows: [RegExp, string][], device: string): string =>
  rows.find(([mark]) => mark.test(device))?.[1] ?? ''

/** A browser as people would call it, like “Firefox on Android”, of how it calls itself. */
export function deviceName(device: string): string {
  const browser = named(BROWSERS, device) || 'A browser'
  const system = named(SYSTEMS, device)
  return system ? `${browser} on ${system}` : browser
}
