const FIRST_MS = 1000
const LONGEST_MS = 15_000
const FIRST_PATIENCE_MS = 4000
const LONGEST_PATIENCE_MS = 30_000

/** How long to wait after so many tries without an answer. */
export const waitAfter = (tries: number): number =>
  tries ? Math.min(FIRST_MS * 2 ** (tries - 1), LONGEST_MS) : 0

/** How long an answer may take: a dead wire is given up soon, a slow server gets more time with every try. */
export const patienceAfter = (tries: number): number =>
  Math.min(FIRST_PATIENCE_MS * 2 ** tries, LONGEST_PATIENCE_MS)
