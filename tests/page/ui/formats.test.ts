import { afterEach, describe, expect, it } from 'vitest'
import { fixed, formats } from '@/ui/formats'
import { clockAt, dayAt, dayOfRound, fullDay, longDay, momentAt, shortDay } from '@/ui/moments'

const AFTERNOON = '2026-01-14T13:05:00Z'
const usual = formats.value
afterEach(() => {
  formats.value = usual
})

describe('days and clock as the firm writes them', () => {
  it('month first, by twelve hours', () => {
    formats.value = { days: 'month_day', clock: '12', decimal: 'point' }
    expect(clockAt(AFTERNOON, 'UTC')).toBe('1:05 PM')
    expect(momentAt(AFTERNOON, 'UTC')).toBe('Jan 14, 2026, 1:05 PM')
    expect(longDay('2026-01-14')).toBe('Wednesday, January 14, 2026')
    expect(fullDay('2026-01-14')).toBe('January 14, 2026')
  })
  it('year first, in figures', () => {
    formats.value = { days: 'year_first', clock: '24', decimal: 'point' }
    expect(momentAt(AFTERNOON, 'UTC')).toBe('2026-01-14, 13:05')
    expect(dayAt('2026-01-14T23:30:00Z', 'Etc/GMT-10')).toBe('2026-01-15')
    expect(shortDay('2026-01-14')).toBe('2026-01-14')
    expect(dayOfRound('2026-01-14')).toBe('Wednesday 2026-01-14')
  })
})

describe('numbers as the firm writes them', () => {
  it('have a true minus and no negative zero', () => {
    expect(fixed(-1.25, 1)).toBe('−1.3')
    expect(fixed(-0.04, 1)).toBe('0.0')
  })
  it('take the decimal comma', () => {
    formats.value = { ...usual, decimal: 'comma' }
    expect(fixed(-12.5, 2)).toBe('−12,50')
  })
})
