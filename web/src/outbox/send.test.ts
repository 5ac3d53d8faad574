import { expect, it } from 'vitest'
import { ApiError, asError } from '@/api/client'
import { trySend } from './send'
import type { PendingLine } from './store'
import { localIso } from './useOutbox'

const line: PendingLine = {
  id: 'a',
  visit: 1,
  person: 'tove',
  text: 'room 1',
  stage: null,
  phase: 'found',
  at: '',
}
const fail = (status: number) => () => Promise.reject(new ApiError(status, 'code', 'why'))

it('is done when the server took it', async () =>
  expect(await trySend(line, () => Promise.resolve())).toEqual({ kind: 'sent' }))
it.each([0, 401, 500, 502, 503])('keeps the line after %i', async (status) =>
  expect(await trySend(line, fail(status))).toEqual({ kind: 'kept' }),
)
it.each([403, 404, 409, 422])('says why after %i', async (status) =>
  expect(await trySend(line, fail(status))).toEqual({ kind: 'refused', why: 'why' }),
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
