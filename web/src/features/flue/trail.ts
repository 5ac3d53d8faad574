import type { Buffers } from '@/parts/live/buffers'

export interface TrailPoint {
  o2: number
  co2: number
  measured: boolean
}
const LENGTH = 60
const BESIDE_S = 3

/** The last points of a running flue trace; where CO₂ is not measured, ``onLine`` places it. */
export function trailOf(live: Buffers, onLine: (o2: number) => number): TrailPoint[] {
  const oxygen = live.o2_dry_pct
  if (!oxygen) return []
  const carbon = live.co2_dry_pct
  return oxygen.t.slice(-LENGTH).map((t, i) => {
    const o2 = oxygen.v.slice(-LENGTH)[i] ?? NaN
    const beside = carbon?.t.findIndex((other) => Math.abs(other - t) <= BESIDE_S) ?? -1
    return beside < 0
      ? { o2, co2: onLine(o2), measured: false }
      : { o2, co2: carbon?.v[beside] ?? NaN, measured: true }
  })
}
