/** One live channel: seconds since the capture began, and values in canonical units, oldest first. */
export interface Buffer {
  t: number[]
  v: number[]
}
export type Buffers = Record<string, Buffer>
/** What the server says of new samples: milliseconds and values by channel. */
export interface Notice {
  visit: number
  capture: string
  instrument: number
  sequence: number
  channels?: Record<string, [number[], number[]]>
  lost?: boolean
}

export const KEEP_S = 120
const PAUSE_S = 5
const LEAST_SPAN = 0.08 // of the value: less than this is noise

/** The buffers with new samples in their places; what is older than KEEP_S before the newest goes. Late ones are sorted in. */
export function withSamples(buffers: Buffers, channels: NonNullable<Notice['channels']>): Buffers {
  const next: Buffers = { ...buffers }
  for (const [name, [times, values]] of Object.entries(channels)) {
    const before = next[name] ?? { t: [], v: [] }
    const rows = [
      ...before.t.map((t, i): [number, number] => [t, before.v[i] ?? NaN]),
      ...times.map((ms, i): [number, number] => [ms / 1000, values[i] ?? NaN]),
    ]
    if ((times[0] ?? 0) / 1000 < (before.t.at(-1) ?? -Infinity)) rows.sort((a, b) => a[0] - b[0])
    const oldest = (rows.at(-1)?.[0] ?? 0) - KEEP_S
    const kept = rows.filter(([t]) => t >= oldest)
    next[name] = { t: kept.map(([t]) => t), v: kept.map(([, v]) => v) }
  }
  return next
}

/** The newest moment of all channels, s; 0 where nothing was heard. */
export const newestOf = (buffers: Buffers): number =>
  Math.max(0, ...Object.values(buffers).map((b) => b.t.at(-1) ?? 0))

/** An SVG path of the last ``span`` seconds before ``end``, scaled into width × height; pauses break the line. Noise alone does not fill the lane. */
export function pathOf(
  buffer: Buffer,
  end: number,
  span: number,
  width: number,
  height: number,
): { points: string; low: number; high: number } {
  const seen = buffer.t
    .map((t, i): [number, number] => [t, buffer.v[i] ?? NaN])
    .filter(([t, v]) => t >= end - span && Number.isFinite(v))
  const values = seen.map(([, v]) => v)
  const low = Math.min(...values),
    high = Math.max(...values)
  const room = Math.max(high - low, LEAST_SPAN * Math.abs(high)) || 1
  let before = -Infinity
  const points = seen
    .map(([t, v]) => {
      const pen = t - before > PAUSE_S ? 'M' : 'L'
      before = t
      return `${pen}${(((t - end + span) / span) * width).toFixed(1)} ${(height * (1 - (v - low) / room)).toFixed(1)}`
    })
    .join('')
  return { points, low: values.length ? low : 0, high: values.length ? high : 0 }
}
