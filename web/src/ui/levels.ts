/** The shape that stands for a level of the standing. */
export function levelState(level: number): 'in' | 'near' | 'out' | 'none' {
  if (level === 1) return 'in'
  if (level === 2) return 'near'
  return level >= 3 ? 'out' : 'none'
}
