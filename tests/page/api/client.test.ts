import { afterEach, describe, expect, it, vi } from 'vitest'
import { ApiError, call, csrfToken, within } from '@/api/client'

/** A wire on which nothing comes back: it ends when it is given up. */
function deadWire(): { given: RequestInit[] } {
  const given: RequestInit[] = []
  vi.stubGlobal('fetch', (_: Request, options: RequestInit) => {
    given.push(options)
    return new Promise((_resolve, reject) =>
      options.signal?.addEventListener('abort', () => reject(options.signal?.reason)),
    )
  })
  return { given }
}
const request = (signal?: AbortSignal) =>
  new Request('http://127.0.0.1/api/x', signal ? { signal } : {})

afterEach(() => vi.unstubAllGlobals())

describe('a call', () => {
  it('is given up when its time is over, and says that nobody was reached', async () => {
    deadWire()
    const answer = call(within(20)(request()).then((response) => ({ response })))
    await expect(answer).rejects.toMatchObject({ status: 0, code: 'unreachable' })
    await answer.catch((error: ApiError) => expect(error.unreachable).toBe(true))
  })
  it('is given up by whoever asked, before its time is over', async () => {
    deadWire()
    const asked = new AbortController()
    const answer = within(60_000)(request(asked.signal))
    asked.abort(new Error('something else is typed'))
    await expect(answer).rejects.toThrow('something else is typed')
  })
  it('gives what came in time', async () => {
    vi.stubGlobal('fetch', () => Promise.resolve(new Response('{"a": 1}')))
    const response = await within(1000)(request())
    expect(await call(Promise.resolve({ data: await response.json(), response }))).toEqual({ a: 1 })
  })
})

it('finds the token under either name of its cookie', () => {
  document.cookie = 'csrftoken=plain'
  expect(csrfToken()).toBe('plain')
  const named = vi.spyOn(document, 'cookie', 'get').mockReturnValue('a=1; __Host-csrftoken=tls')
  expect(csrfToken()).toBe('tls')
  named.mockRestore()
})
