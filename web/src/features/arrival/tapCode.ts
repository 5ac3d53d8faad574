/** A flash as it was tapped along: how long the lamp was lit, and when it went out. */
export interface Flash {
  downMs: number
  upMs: number
}

const LONG_MS = 600 // a flash longer than this is a long one
const GAP_MS = 1300 // a pause longer than this ends a digit

/** The digits of a flash code: groups of flashes between pauses, like "2 4". Long flashes count the first digit. */
export function digitsOf(flashes: Flash[]): string {
  if (flashes.some((f) => isLong(f)) && flashes.some((f) => !isLong(f))) {
    return `${flashes.filter(isLong).length} ${flashes.filter((f) => !isLong(f)).length}`
  }
  const groups: number[] = []
  flashes.forEach((flash, i) => {
    const before = flashes[i - 1]
    if (!before || flash.downMs - before.upMs > GAP_MS) groups.push(0)
    groups[groups.length - 1]! += 1
  })
  return groups.join(' ')
}

export const isLong = (flash: Flash): boolean => flash.upMs - flash.downMs > LONG_MS

/** Long and short flashes in order, like "L S S". */
export const beatsOf = (flashes: Flash[]): string =>
  flashes.map((f) => (isLong(f) ? 'L' : 'S')).join(' ')

/** Colours in order with their counts, like "3 red 1 amber". */
export function coloursOf(lamps: string[]): string {
  const runs: { colour: string; count: number }[] = []
  for (const colour of lamps) {
    const last = runs.at(-1)
    if (last?.colour === colour) last.count += 1
    else runs.push({ colour, count: 1 })
  }
  return runs.map((run) => `${run.count} ${run.colour}`).join(' ')
}
