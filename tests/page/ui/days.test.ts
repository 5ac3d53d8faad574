import { describe, expect, it } from 'vitest'
import { daysBetween, mondayOf, plusDays } from '@/ui/days'

describe('days as they are counted', () => {
  it.each([
    ['2026-02-28', 1, '2026-03-01'],
    ['2028-02-28', 1, '2028-02-29'],
    ['2026-12-31', 1, '2027-01-01'],
    ['2026-03-29', 1, '2026-03-30'], // a night in which clocks are put on somewhere
    ['2026-11-01', -1, '2026-10-31'],
  ])('%s and %i days is %s', (day, by, then) => {
    expect(plusDays(day, by)).toBe(then)
    expect(daysBetween(day, then)).toBe(by)
  })

  it('begins a week on Monday, also from a Sunday', () => {
    expect(mondayOf('2026-11-29')).toBe('2026-11-23')
    expect(mondayOf('2026-11-23')).toBe('2026-11-23')
  })
})
