/** Rows as the form adds them. */
export const emptyModel = {
  limit: { quantity: 'o2_dry_pct', stage: '', low: '', high: '', page: '', problem: '' },
  code: { pattern: '', meaning: '', state: '' },
}

/** The rows with one of them changed; the others are left as they are. */
export const withRow = <T>(rows: T[], index: number, changes: Partial<T>): T[] =>
  rows.map((row, i) => (i === index ? { ...row, ...changes } : row))
