export const PHASE_WORDS = { found: 'As found', left: 'As left', trial: 'Trial' } as const
export const PHASE_MARKS = { found: '○', left: '▼', trial: '◇' } as const

/** The clock of the writer's zone, like 10:52. */
export function clock(at: string, zone: string): string {
  const match = /^([+-])(\d\d):(\d\d)$/.exec(zone)
  const minutes = match ? (match[1] === '-' ? -1 : 1) * (Number(match[2]) * 60 + Number(match[3])) : 0
  return new Date(new Date(at).getTime() + minutes * 60_000).toISOString().slice(11, 16)
}
