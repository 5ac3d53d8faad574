import { describe, expect, it } from 'vitest'
import { lanesOf, type Channel } from '@/parts/live/lanes'

const channel = (quantity: string, more: Partial<Channel> = {}): Channel => ({
  quantity,
  name: quantity,
  unit: '%',
  scale: 1,
  offset: 0,
  decimals: 1,
  seconds: [],
  values: [],
  newest: null,
  count: 0,
  ...more,
})
const frame = { newest: 100, span: 60, width: 600, height: 40 }
const recent = { t: [90, 100], v: [5, 6.04] }

describe('lanes', () => {
  it('begin with what the view is about, in its order', () => {
    const channels = ['amps_a', 'co_ppm_dry', 'o2_dry_pct'].map((name) => channel(name))
    const lanes = lanesOf(channels, {}, ['o2', 'co_'], frame)
    expect(lanes.map((lane) => lane.quantity)).toEqual(['o2_dry_pct', 'co_ppm_dry', 'amps_a'])
  })
  it('show the newest value in shown units, with a true minus', () => {
    const shown = channel('draft_pa', { scale: -1, decimals: 1 })
    expect(lanesOf([shown], { draft_pa: recent }, [], frame)[0]?.now).toBe('−6.0')
  })
  it('leave out a channel that is no longer sent, and keep one that has not begun', () => {
    const channels = [channel('old'), channel('new')]
    const lanes = lanesOf(channels, { old: { t: [10], v: [1] } }, [], frame)
    expect(lanes.map((lane) => [lane.quantity, lane.now])).toEqual([['new', '–']])
  })
})
