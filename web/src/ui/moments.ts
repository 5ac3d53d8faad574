/** Moments as clocks at the place show them: `zone` is an IANA name, of the site or of the firm. */
type Parts = Intl.DateTimeFormatOptions

const shown = (at: string | Date, zone: string, parts: Parts): string =>
  new Date(at).toLocaleString('en-GB', { ...parts, timeZone: zone })

/** The clock, like 10:52. */
export const clockAt = (at: string | Date, zone: string): string =>
  shown(at, zone, { hour: '2-digit', minute: '2-digit' })
/** The day, like 14 Jan 2026. */
export const dayAt = (at: string | Date, zone: string): string =>
  shown(at, zone, { dateStyle: 'medium' })
/** Day and clock, like 14 Jan 2026, 10:52. */
export const momentAt = (at: string | Date, zone: string): string =>
  shown(at, zone, { dateStyle: 'medium', timeStyle: 'short' })
/** A day as it is said, like Wednesday 14 January 2026; `day` is 2026-01-14. */
export const longDay = (day: string): string =>
  new Date(`${day}T12:00`).toLocaleDateString('en-GB', {
    weekday: 'long',
    day: 'numeric',
    month: 'long',
    year: 'numeric',
  })
/** A day as it stands in a table, like 14 Jan 26. */
export const shortDay = (day: string): string =>
  new Date(`${day}T12:00`).toLocaleDateString('en-GB', {
    day: 'numeric',
    month: 'short',
    year: '2-digit',
  })
/** Which day it is at the place, as 2026-01-14. */
export const todayAt = (zone: string, now: Date = new Date()): string =>
  now.toLocaleDateString('en-CA', { timeZone: zone })
