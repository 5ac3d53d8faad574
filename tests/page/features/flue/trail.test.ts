import { describe, expect, it } from 'vitest'
import { trailOf } from '@/features/flue/trail'

const onLine = (o2: number) => 12 - o2 / 2

describe('the live point of the flue', () => {
  it('runs on the line of the fuel where no CO₂ is measured', () => {
    expect(trailOf({ o2_dry_pct: { t: [1, 2], v: [20, 6] } }, onLine)).toEqual([
      { o2: 20, co2: 2, measured: false },
      { o2: 6, co2: 9, measured: false },
    ])
  })
  it('takes the CO₂ that was measured beside it, and only that', () => {
    const live = { o2_dry_pct: { t: [1, 30], v: [7, 6] }, co2_dry_pct: { t: [1.5], v: [7.7] } }
    expect(trailOf(live, onLine).map((p) => [p.co2, p.measured])).toEqual([
      [7.7, true],
      [9, false],
    ])
  })
  it('is as long as the last minute and empty without oxygen', () => {
    expect(trailOf({ co_ppm_dry: { t: [1], v: [5] } }, onLine)).toEqual([])
    expect(
      trailOf(
        {
          o2_dry_pct: {
            t: Array.from({ length: 90 }, (_, i) => i),
            v: Array(90).fill(6) as number[],
          },
        },
        onLine,
      ),
    ).toHaveLength(60)
  })
})
