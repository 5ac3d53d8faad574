export const PHASE_WORDS = { found: 'As found', left: 'As left', trial: 'Trial' } as const
export const PHASE_MARKS = { found: '○', left: '▼', trial: '◇' } as const
