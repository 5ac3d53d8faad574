import { expect, it } from 'vitest'
import { ApiError, asError } from '@/api/client'
import { patienceAfter, waitAfter } from '@/outbox/backOff'
import { localIso } from '@/outbox/device'
import { saidIn, typedIn } from '@/outbox/saidIn'
import { trySend } from '@/outbox/send'
import { asOfNow, type Pending, type Said } from '@/outbox/store'

const about = { id: 'a', visit: 1, person: 'tove', at: '' }
const line: Pending = { ...about, kind: 'line', text: 'room 1', stage: null, phase: 'found' }
const fail =
  (status: number, code = 'code') =>
  () =>
    Promise.reject(new ApiError(status, code, 'why', ['one', 'two']))

it('is done when the server took it', async () =>
  expect(await trySend(line, () => Promise.resolve())).toEqual({ kind: 'sent' }))
it.each([0, 502, 503, 504])('keeps what got %i: nobody answered', async (status) =>
  expect(await trySend(line, fail(status))).toEqual({ kind: 'kept', because: 'silence' }),
)
it('keeps what the page itself could not send', async () =>
  expect(await trySend(line, () => Promise.reject(new TypeError('no')))).toEqual({
    kind: 'kept',
    because: 'silence',
  }))
it.each([
  [401, 'not_signed_in'],
  [403, 'forbidden'],
])('keeps what got %i (%s), and asks to sign in', async (status, code) =>
  expect(await trySend(line, fail(status, code))).toEqual({ kind: 'kept', because: 'signed_out' }),
)
it.each([408, 425, 429, 500])('keeps what got %i: it says nothing of the line', async (status) =>
  expect(await trySend(line, fail(status))).toEqual({ kind: 'kept', because: 'trouble' }),
)
it.each([403, 404, 409, 413, 422])('says why after a rule’s own %i', async (status) =>
  expect(await trySend(line, fail(status))).toEqual({
    kind: 'refused',
    refused: { why: 'why', code: 'code', details: ['one', 'two'] },
  }),
)
it('reads problem details', () => {
  const error = asError(422, { title: 'No.', code: 'x', details: ['a'] })
  expect([error.message, error.code, error.details]).toEqual(['No.', 'x', ['a']])
  expect(asError(500, '<html>').message).toContain('500')
})
it('writes the moment with its zone', () =>
  expect(localIso(new Date('2026-01-14T09:00:00Z'))).toMatch(
    /^2026-01-14T\d\d:00:00\.000[+-]\d\d:\d\d$/,
  ))
it('tries again soon, then more slowly, and never more slowly than every five seconds', () => {
  expect([0, 1, 2, 3, 4, 5, 50].map(waitAfter)).toEqual([0, 1000, 2000, 4000, 5000, 5000, 5000])
})
it('gives up a dead wire soon, and gives a slow server more time with every try', () => {
  expect([0, 1, 2, 3, 50].map(patienceAfter)).toEqual([4000, 6000, 8000, 8000, 8000])
})
it('takes over what an earlier page left on the disk', () => {
  const { kind, ...before } = line
  expect(kind).toBe('line')
  expect(asOfNow(before)).toEqual(line)
  expect(asOfNow({ ...before, refused: 'No.' }).refused).toEqual({
    why: 'No.',
    code: '',
    details: [],
  })
})

const said: [Said, string, string][] = [
  [{ kind: 'line', text: 'mp 3.4', stage: 'high', phase: 'left' }, 'mp 3.4', 'mp 3.4'],
  [
    { kind: 'correction', corrects: 'e', said: 'Manifold 3.5', text: 'mp 3.4', why: '' },
    '“Manifold 3.5” corrected: mp 3.4',
    'mp 3.4',
  ],
  [
    { kind: 'correction', corrects: 'e', said: 'Manifold 3.5', text: null, why: 'slip' },
    'Strike “Manifold 3.5”',
    '',
  ],
  [{ kind: 'photo', file: new File([], 'a'), station: 'vent' }, 'Photo, vent', ''],
  [{ kind: 'photo', file: new File([], 'a'), station: '' }, 'Photo', ''],
  [{ kind: 'marks', photo: 'p', marks: [] }, '0 marks on a photo', ''],
  [
    { kind: 'trace', what: 'dips', source: 'c', body: { quantity: 'draft', phase: 'found' } },
    'The worst of a trace',
    '',
  ],
]
it.each(said)('says what waits: %o', (one, words, typed) => {
  const item = { ...about, ...one } as Pending
  expect(saidIn(item)).toBe(words)
  expect(typedIn(item)).toBe(typed)
})
