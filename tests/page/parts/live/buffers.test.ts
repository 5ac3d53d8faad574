import { describe, expect, it } from 'vitest'
import { KEEP_S, newestOf, pathOf, withSamples } from '@/parts/live/buffers'

describe('live channels', () => {
  it('appends in order and sorts late samples in', () => {
    const first = withSamples(
      {},
      {
        draft_pa: [
          [1000, 2000],
          [1, 2],
        ],
      },
    )
    const late = withSamples(first, { draft_pa: [[1500], [1.5]] })
    expect(late['draft_pa']).toEqual({ t: [1, 1.5, 2], v: [1, 1.5, 2] })
    expect(first['draft_pa']!.t).toEqual([1, 2])
  })
  it('forgets what is old', () => {
    const first = withSamples({}, { x: [[0], [1]] })
    expect(withSamples(first, { x: [[(KEEP_S + 5) * 1000], [2]] })['x']!.v).toEqual([2])
  })
  it('knows the newest moment', () =>
    expect([
      newestOf({}),
      newestOf({ a: { t: [3, 9], v: [0, 0] }, b: { t: [5], v: [0] } }),
    ]).toEqual([0, 9]))
  it('scales into its lane and breaks at a pause', () => {
    const drawn = pathOf({ t: [0, 1, 8, 9], v: [0, 10, 10, 0] }, 10, 10, 100, 50)
    expect(drawn.points).toBe('M0.0 50.0L10.0 0.0M80.0 0.0L90.0 50.0')
    expect([drawn.low, drawn.high]).toEqual([0, 10])
  })
  it('draws nothing of nothing', () =>
    expect(pathOf({ t: [], v: [] }, 10, 10, 100, 50)).toEqual({ points: '', low: 0, high: 0 }))
})
