import { expect, it } from 'vitest'
import { seenLine, ticks } from './stopwatch'

it('writes seconds to a tenth', () => expect(seenLine('inducer', 1000, 4449)).toBe('seen inducer 3.4 s'))
it('never goes before the call', () => expect(seenLine('inducer', 5000, 4000)).toBe('seen inducer 0.0 s'))
it.each([[36, 7], [98, 7], [400, 7]])('keeps the axis of %d s readable', (longest, most) => {
  const marks = ticks(longest)
  expect(marks[0]).toBe(0)
  expect(marks.length).toBeLessThanOrEqual(most + 1)
  expect(marks.at(-1)).toBeLessThanOrEqual(longest)
})
