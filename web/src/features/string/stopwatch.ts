/** Seconds since the call, to a tenth, as a line for the tape: "seen inducer 3.4". */
export function seenLine(key: string, startedMs: number, nowMs: number): string {
  return `seen ${key} ${(Math.max(0, nowMs - startedMs) / 1000).toFixed(1)} s`
}

/** Ticks of the time axis, s: at most seven, on round numbers. */
export function ticks(longestS: number): number[] {
  const step = [5, 10, 15, 30, 60, 120].find((s) => longestS / s <= 7) ?? 300
  return Array.from({ length: Math.floor(longestS / step) + 1 }, (_, i) => i * step)
}
