import { expect, it } from 'vitest'
import { lanes } from '@/features/flue/traceScale'

it('scales a channel into its lane', () => {
  const [lane] = lanes([0, 10], { o2_dry_pct: [20, 6] }, { o2_dry_pct: '%' }, 100, 50)
  expect(lane).toMatchObject({
    label: 'O₂',
    unit: '%',
    low: 6,
    high: 20,
    points: 'M0.0 0.0L100.0 50.0',
  })
})
it('breaks the line at a gap', () => {
  const [lane] = lanes([0, 1, 2], { co_ppm_dry: [1, null, 3] }, {}, 100, 50)
  expect(lane?.points.match(/M/g)).toHaveLength(2)
})
it('leaves out a channel without values, and keeps the order', () => {
  const names = lanes(
    [0, 1],
    { flue_temp_k: [1, 2], co_ppm_dry: [null, null], o2_dry_pct: [1, 1] },
    {},
    100,
    50,
  ).map((l) => l.name)
  expect(names).toEqual(['o2_dry_pct', 'flue_temp_k'])
})
