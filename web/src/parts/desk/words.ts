export const PHASE_WORDS = { found: 'As found', left: 'As left', trial: 'Trial' } as const
export const PHASE_MARKS = { found: '○', left: '▼', trial: '◇' } as const

/** The moment as ISO text at an offset like -07:00. */
function atOffset(at: string, offset: string): string {
  const match = /^([+-])(\d\d):(\d\d)$/.exec(offset)
  const minutes = match
    ? (match[1] === '-' ? -1 : 1) * (Number(match[2]) * 60 + Number(match[3]))
    : 0
  return new Date(new Date(at).getTime() + minutes * 60_000).toISOString()
}
/** The clock at the entry's own offset, like 10:52. */
export const clock = (at: string, offset: string): string => atOffset(at, offset).slice(11, 16)
/** The day at the entry's own offset, like 14/01/2026. */
export const day = (at: string, offset: string): string =>
  atOffset(at, offset).slice(0, 10).split('-').reverse().join('/')
