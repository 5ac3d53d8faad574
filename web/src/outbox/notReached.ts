/** How many entries are still on this tablet, said as a sentence's beginning. */
export function notReached(waiting: number): string {
  return waiting === 1
    ? '1 entry has not reached the server'
    : `${waiting} entries have not reached the server`
}
