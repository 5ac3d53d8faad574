/** This tablet's own name: whose clock wrote a line. Made once, kept on the tablet. */
export function deviceName(): string {
  const kept = localStorage.getItem('havrin-device') ?? `tablet-${crypto.randomUUID().slice(0, 8)}`
  localStorage.setItem('havrin-device', kept)
  return kept
}

/** The moment with the tablet's own zone, like 2026-01-14T10:29:08+01:00. */
export function localIso(moment: Date): string {
  const offset = -moment.getTimezoneOffset()
  const sign = offset < 0 ? '-' : '+'
  const two = (n: number) => String(Math.floor(Math.abs(n))).padStart(2, '0')
  const local = new Date(moment.getTime() + offset * 60_000).toISOString().slice(0, 23)
  return `${local}${sign}${two(offset / 60)}:${two(offset % 60)}`
}
