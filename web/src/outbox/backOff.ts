const FIRST_MS = 1000
const LONGEST_MS = 5000
const FIRST_PATIENCE_MS = 4000
const MORE_PATIENCE_MS = 2000
const LONGEST_PATIENCE_MS = 8000

/** How long to wait after so many tries without an answer. */
export const waitAfter = (tries: number): number =>
  tries ? Math.min(FIRST_MS * 2 ** (tries - 1), LONGEST_MS) : 0

/**
 * How long an answer may take: a dead wire is given up soon, a slow server gets a little more time with each try. What it
 * had not finished it has by then, and answers at once: a line is written once under its id.
 */
export const patienceAfter = (tries: number): number =>
  Math.min(FIRST_PATIENCE_MS + MORE_PATIENCE_MS * tries, LONGEST_PATIENCE_MS)
