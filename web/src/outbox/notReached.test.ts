import { expect, test } from 'vitest'
import { notReached } from './notReached'

test('one entry is told as one', () => {
  expect(notReached(1)).toBe('1 entry has not reached the server')
  expect(notReached(3)).toBe('3 entries have not reached the server')
})
