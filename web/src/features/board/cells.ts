import type { Schemas } from '@/api/client'

type BoardVisit = Schemas['BoardVisit']

/** The name of somebody's day on the board. */
export const cellKey = (person: number, day: string): string => `${person} ${day}`

/** The visits of each cell, in their order; those that somebody helps on come after their own. */
export function byCell(visits: readonly BoardVisit[]): Map<string, BoardVisit[]> {
  const cells = new Map<string, BoardVisit[]>()
  const put = (person: number, visit: BoardVisit) => {
    const key = cellKey(person, visit.day)
    cells.set(key, [...(cells.get(key) ?? []), visit])
  }
  for (const visit of visits) if (visit.technician_id !== null) put(visit.technician_id, visit)
  for (const visit of visits) for (const helper of visit.helpers) put(helper, visit)
  return cells
}
