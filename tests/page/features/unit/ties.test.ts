import { expect, it } from 'vitest'
import { joinPath, tiePath, type Box } from '@/features/unit/ties'

const box = (left: number, top: number): Box => ({
  left,
  right: left + 100,
  top,
  bottom: top + 50,
  middle: top + 25,
})

it('begins at the station and ends at the switch', () => {
  for (const adjacent of [true, false]) {
    const path = tiePath(box(0, 100), box(300, 200), 1, adjacent)
    expect(path).toMatch(/^M100 125/)
    expect(path).toMatch(/L300 225$/)
  }
})
it('runs along the gap above its row when columns lie between', () => {
  expect(tiePath(box(0, 100), box(300, 200), 1, false)).toContain(' 92')
})
it('keeps lanes apart', () => {
  expect(tiePath(box(0, 100), box(300, 200), 0, false)).not.toBe(
    tiePath(box(0, 100), box(300, 200), 2, false),
  )
})
it('joins two paths under both', () =>
  expect(joinPath(50, 150, 10, 20, 40)).toMatch(/^M50 10.*40.*L150 20$/))
