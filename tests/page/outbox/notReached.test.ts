import { expect, test } from 'vitest'
import { notReached, waitingWords } from '@/outbox/notReached'
import type { Pending } from '@/outbox/store'

test('one entry is told as one', () => {
  expect(notReached(1)).toBe('1 entry has not reached the server')
  expect(notReached(3)).toBe('3 entries have not reached the server')
})

test('what waits is told by person, and what was refused does not wait', () => {
  const of = (person: string, refused = false) => ({ person, refused }) as unknown as Pending
  expect(waitingWords([of('tove'), of('wenna'), of('wenna'), of('odo', true)])).toEqual([
    '1 entry of tove waits on this tablet: it is sent when tove signs in.',
    '2 entries of wenna wait on this tablet: they are sent when wenna signs in.',
  ])
  expect(waitingWords([])).toEqual([])
})
