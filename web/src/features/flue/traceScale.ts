export interface Lane {
  name: string
  label: string
  unit: string
  points: string
  low: number
  high: number
}

const LABELS: Record<string, string> = {
  o2_dry_pct: 'O₂',
  co_ppm_dry: 'CO',
  flue_temp_k: 'Flue',
  co2_dry_pct: 'CO₂',
  air_temp_k: 'Air',
}
const ORDER = ['o2_dry_pct', 'co_ppm_dry', 'flue_temp_k']

/** One lane per main channel, its points scaled into width × height; gaps break the line. */
export function lanes(
  seconds: number[],
  channels: Record<string, (number | null)[]>,
  units: Record<string, string>,
  width: number,
  height: number,
): Lane[] {
  const last = seconds.at(-1) || 1
  return ORDER.filter((name) => channels[name]?.some((v) => v !== null)).map((name) => {
    const values = channels[name] ?? []
    const known = values.filter((v): v is number => v !== null)
    const low = Math.min(...known),
      high = Math.max(...known)
    const span = high - low || 1
    let pen = 'M'
    const points = values.map((v, i) => {
      if (v === null) {
        pen = 'M'
        return ''
      }
      const step = `${pen}${(((seconds[i] ?? 0) / last) * width).toFixed(1)} ${(height * (1 - (v - low) / span)).toFixed(1)}`
      pen = 'L'
      return step
    })
    return {
      name,
      label: LABELS[name] ?? name,
      unit: units[name] ?? '',
      points: points.join(''),
      low,
      high,
    }
  })
}
