/** Days as they are counted: `day` is 2026-01-14 all through, and no clock comes near it. */
const asUtc = (day: string): Date => new Date(`${day}T00:00:00Z`)

/** The day `by` days after `day`. */
export function plusDays(day: string, by: number): string {
  const at = asUtc(day)
  at.setUTCDate(at.getUTCDate() + by)
  return at.toISOString().slice(0, 10)
}

/** The Monday of the week of `day`. */
export const mondayOf = (day: string): string => plusDays(day, -((asUtc(day).getUTCDay() + 6) % 7))

/** How many days from `first` to `last`. */
export const daysBetween = (first: string, last: string): number =>
  Math.round((asUtc(last).getTime() - asUtc(first).getTime()) / 86_400_000)
