import { expect, it } from 'vitest'
import { clock } from './words'

it.each([
  ['2026-01-14T09:52:00Z', '+01:00', '10:52'],
  ['2026-01-14T09:52:00Z', '-03:30', '06:22'],
  ['2026-01-14T23:30:00Z', '+01:00', '00:30'],
  ['2026-01-14T09:52:00Z', '', '09:52'],
])('%s in %s reads %s', (at, zone, shown) => expect(clock(at, zone)).toBe(shown))
