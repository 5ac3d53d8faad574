import { describe, expect, it } from 'vitest'
import { clockAt, clockAtOffset, dayAt, dayAtOffset, momentAt, todayAt } from '@/ui/moments'

const LATE = '2026-02-01T05:30:00Z' // 22:30 on the last of January, seven hours west of Greenwich

describe('moments at a place', () => {
  it.each([
    ['MST7MDT', '22:30', '31 Jan 2026', '2026-01-31'],
    ['UTC', '05:30', '1 Feb 2026', '2026-02-01'],
    ['Etc/GMT-10', '15:30', '1 Feb 2026', '2026-02-01'],
  ])('in %s it is %s on %s', (zone, clock, day, today) => {
    expect(clockAt(LATE, zone)).toBe(clock)
    expect(dayAt(LATE, zone)).toBe(day)
    expect(momentAt(LATE, zone)).toBe(`${day}, ${clock}`)
    expect(todayAt(zone, new Date(LATE))).toBe(today)
  })
  it.each([
    ['2026-01-14T09:52:00Z', '+01:00', '10:52', '14 Jan 2026'],
    ['2026-01-14T09:52:00Z', '-03:30', '06:22', '14 Jan 2026'],
    ['2026-01-14T23:30:00Z', '+01:00', '00:30', '15 Jan 2026'],
    ['2026-01-14T09:52:00Z', '', '09:52', '14 Jan 2026'],
  ])('of an entry: %s at %s is %s on %s', (at, offset, clock, day) => {
    expect(clockAtOffset(at, offset)).toBe(clock)
    expect(dayAtOffset(at, offset)).toBe(day)
  })
  it('knows summer time', () => expect(clockAt('2026-07-01T05:30:00Z', 'MST7MDT')).toBe('23:30'))
})
