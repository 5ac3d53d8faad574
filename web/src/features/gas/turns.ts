/** A meter being clocked: when the mark passed, ms. The first pass starts the watch, each further one is a turn. */
export type Passes = number[]

export const turnsOf = (passes: Passes): number => Math.max(0, passes.length - 1)

/** Seconds from the first pass to the last one. */
export const secondsOf = (passes: Passes): number =>
  passes.length < 2 ? 0 : (passes.at(-1)! - passes[0]!) / 1000

/** The line that writes it: "clock 2 ft3 3 90.6". */
export const clockLine = (volume: string, unit: string, passes: Passes): string =>
  `clock ${volume} ${unit} ${turnsOf(passes)} ${secondsOf(passes).toFixed(1)}`
