/** A place on the drawing that was touched. */
export interface Spot {
  part: string
  zone: string
}

/** The line that writes a finding at a spot; what is not said is omitted. */
export function lineFor(
  starter: string,
  spot: Spot,
  how: { size: string; method: string; sure: string },
): string {
  return [starter, spot.part, spot.zone, how.size, how.method && `by ${how.method}`, how.sure]
    .filter(Boolean)
    .join(' ')
}
