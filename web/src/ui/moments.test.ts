import { describe, expect, it } from 'vitest'
import { clockAt, dayAt, momentAt, todayAt } from './moments'

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
  it('knows summer time', () => expect(clockAt('2026-07-01T05:30:00Z', 'MST7MDT')).toBe('23:30'))
})
