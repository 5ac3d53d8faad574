import type { Pending } from './store'

/** How many entries are still on this tablet, said as a sentence's beginning. */
export function notReached(waiting: number): string {
  return waiting === 1
    ? '1 entry has not reached the server'
    : `${waiting} entries have not reached the server`
}

/** Whose entries wait on this tablet, a sentence a person: they go when that person signs in. */
export function waitingWords(items: Pending[]): string[] {
  const counts = new Map<string, number>()
  for (const { person, refused } of items)
    if (!refused) counts.set(person, (counts.get(person) ?? 0) + 1)
  return [...counts].map(([person, count]) =>
    count === 1
      ? `1 entry of ${person} waits on this tablet: it is sent when ${person} signs in.`
      : `${count} entries of ${person} wait on this tablet: they are sent when ${person} signs in.`,
  )
}
