import { expect, it } from 'vitest'
import { running, seenLine, ticks } from '@/features/string/stopwatch'

it('writes seconds to a tenth', () =>
  expect(seenLine('inducer', 1000, 4449)).toBe('seen inducer 3.4 s'))
it('never goes before the call', () =>
  expect(seenLine('inducer', 5000, 4000)).toBe('seen inducer 0.0 s'))
it.each([
  [36, 7],
  [98, 7],
  [400, 7],
])('keeps the axis of %d s readable', (longest, most) => {
  const marks = ticks(longest)
  expect(marks[0]).toBe(0)
  expect(marks.length).toBeLessThanOrEqual(most + 1)
  expect(marks.at(-1)).toBeLessThanOrEqual(longest)
})
it.each([
  ['2026-01-14T10:00:00Z', '42 min'],
  ['2026-01-14T07:37:00Z', '3 h 5 min'],
  ['2026-01-14T11:00:00Z', '0 min'],
])('tells how long a jumper from %s is in', (since, said) =>
  expect(running(since, Date.parse('2026-01-14T10:42:00Z'))).toBe(said),
)
