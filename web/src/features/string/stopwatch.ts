/** Seconds since the call, to a tenth, as a line for the tape: "seen inducer 3.4". */
export function seenLine(key: string, startedMs: number, nowMs: number): string {
  return `seen ${key} ${(Math.max(0, nowMs - startedMs) / 1000).toFixed(1)} s`
}

/** How long something has been in, like "42 min" or "3 h 5 min". */
export function running(since: string, nowMs: number): string {
  const minutes = Math.max(0, Math.floor((nowMs - new Date(since).getTime()) / 60_000))
  return minutes < 60 ? `${minutes} min` : `${Math.floor(minutes / 60)} h ${minutes % 60} min`
}

/** Ticks of the time axis, s: at most seven, on round numbers. */
export function ticks(longestS: number): number[] {
  const step = [5, 10, 15, 30, 60, 120].find((s) => longestS / s <= 7) ?? 300
  return Array.from({ length: Math.floor(longestS / step) + 1 }, (_, i) => i * step)
}
