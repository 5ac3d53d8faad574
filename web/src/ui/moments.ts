import { formats } from './formats'

/** Moments as clocks at the place show them: `zone` is an IANA name, of the site or of the firm. */
type Parts = Intl.DateTimeFormatOptions

const LOCALES = { day_month: 'en-GB', month_day: 'en-US', year_first: 'sv-SE' } as const

/** The day alone, in the firm's order; year first it is in figures, whatever the parts ask for. */
function written(at: Date, parts: Parts): string {
  const { days } = formats.value
  if (days !== 'year_first') return at.toLocaleDateString(LOCALES[days], parts)
  const { timeZone, weekday } = parts
  const day = at.toLocaleDateString(LOCALES.year_first, { timeZone })
  return weekday ? `${at.toLocaleDateString('en-GB', { timeZone, weekday })} ${day}` : day
}

const noonOf = (day: string): Date => new Date(`${day}T12:00`)

/** The clock, like 10:52 or 10:52 AM. */
export const clockAt = (at: string | Date, zone: string): string =>
  formats.value.clock === '24'
    ? new Date(at).toLocaleTimeString('en-GB', {
        hour: '2-digit',
        minute: '2-digit',
        timeZone: zone,
      })
    : new Date(at)
        .toLocaleTimeString('en-US', { hour: 'numeric', minute: '2-digit', timeZone: zone })
        .replace('\u202f', ' ')
/** The day, like 14 Jan 2026. */
export const dayAt = (at: string | Date, zone: string): string =>
  written(new Date(at), { dateStyle: 'medium', timeZone: zone })
/** Day and clock, like 14 Jan 2026, 10:52. */
export const momentAt = (at: string | Date, zone: string): string =>
  `${dayAt(at, zone)}, ${clockAt(at, zone)}`
/** A day as it is said, like Wednesday 14 January 2026; `day` is 2026-01-14. */
export const longDay = (day: string): string =>
  written(noonOf(day), { weekday: 'long', day: 'numeric', month: 'long', year: 'numeric' })
/** A day of this year as it is said, like Wednesday 14 January. */
export const dayOfRound = (day: string): string =>
  written(noonOf(day), { weekday: 'long', day: 'numeric', month: 'long' })
/** A day in full, like 14 January 2026. */
export const fullDay = (day: string): string =>
  written(noonOf(day), { day: 'numeric', month: 'long', year: 'numeric' })
/** A day as it stands in a table, like 14 Jan 2026. */
export const shortDay = (day: string): string =>
  written(noonOf(day), { day: 'numeric', month: 'short', year: 'numeric' })
/** Which day it is at the place, as 2026-01-14. */
export const todayAt = (zone: string, now: Date = new Date()): string =>
  now.toLocaleDateString('en-CA', { timeZone: zone })

/** The moment as UTC clocks would show that of an offset like -07:00. */
function atOffset(at: string, offset: string): Date {
  const match = /^([+-])(\d\d):(\d\d)$/.exec(offset)
  const minutes = match
    ? (match[1] === '-' ? -1 : 1) * (Number(match[2]) * 60 + Number(match[3]))
    : 0
  return new Date(new Date(at).getTime() + minutes * 60_000)
}
/** The clock at an entry's own offset; a long tape shows hundreds, so that of 24 hours is not left to Intl. */
export const clockAtOffset = (at: string, offset: string): string =>
  formats.value.clock === '24'
    ? atOffset(at, offset).toISOString().slice(11, 16)
    : clockAt(atOffset(at, offset), 'UTC')
/** The day at an entry's own offset, like 14 Jan 2026. */
export const dayAtOffset = (at: string, offset: string): string =>
  dayAt(atOffset(at, offset), 'UTC')
