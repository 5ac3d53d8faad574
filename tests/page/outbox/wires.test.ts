import { afterEach, expect, it, vi } from 'vitest'
import { askOnEveryWire } from '@/outbox/wires'

afterEach(() => vi.unstubAllGlobals())

const dead = (): Promise<Response> => Promise.reject(new DOMException('', 'TimeoutError'))

it('asks on every wire at once, and one that lives is enough', async () => {
  const call = vi.fn(dead).mockImplementationOnce(() => Promise.resolve(new Response()))
  vi.stubGlobal('fetch', call)
  expect(await askOnEveryWire()).toBe(true)
  expect(call).toHaveBeenCalledTimes(6)
})

it('says when none answers, and asks anew the next time', async () => {
  const call = vi.fn(dead)
  vi.stubGlobal('fetch', call)
  expect(await askOnEveryWire()).toBe(false)
  await askOnEveryWire()
  expect(call).toHaveBeenCalledTimes(12)
})

it('asks once for all who want to know at the same time', async () => {
  const call = vi.fn(dead)
  vi.stubGlobal('fetch', call)
  await Promise.all([askOnEveryWire(), askOnEveryWire()])
  expect(call).toHaveBeenCalledTimes(6)
})
