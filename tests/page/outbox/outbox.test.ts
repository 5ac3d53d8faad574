import { flushPromises } from '@vue/test-utils'
import { createPinia, setActivePinia } from 'pinia'
import { beforeEach, describe, expect, it, vi } from 'vitest'
import { closeVisit, correct, markPhoto, sendPhoto, writeLine, writeMeans } from '@/api/calls'
import { ApiError, type Schemas } from '@/api/client'
import { emptied, rows, told, trouble } from '@tests/testing/disk'
import type { Pending, Said } from '@/outbox/store'
import { useOutbox } from '@/outbox/useOutbox'

vi.mock('@/api/calls', async () => (await import('@tests/testing/writes')).writes)
vi.mock('@/outbox/store', async () => (await import('@tests/testing/disk')).disk)

const page = { id: 7 } as Schemas['VisitPage']
const line = (text: string): Said => ({ kind: 'line', text, stage: null, phase: 'found' })
const kept = (id: string, person = 'tove', more: Partial<Pending> = {}): Pending =>
  ({ ...line(id), id, visit: 7, person, at: id, ...more }) as Pending
const texts = () => vi.mocked(writeLine).mock.calls.map(([, body]) => body.text)
/** A server that answers when the test says so. */
function held(): { answer: (with_?: unknown) => void } {
  let resolve: (value: Schemas['VisitPage']) => void = () => undefined
  let reject: (reason: unknown) => void = () => undefined
  vi.mocked(writeLine).mockImplementationOnce(
    () => new Promise((done, failed) => ([resolve, reject] = [done, failed])),
  )
  return { answer: (with_) => (with_ ? reject(with_) : resolve(page)) }
}

beforeEach(() => {
  setActivePinia(createPinia())
  vi.resetAllMocks()
  vi.useRealTimers()
  vi.mocked(writeLine).mockResolvedValue(page)
  emptied()
})

async function started(): Promise<ReturnType<typeof useOutbox>> {
  const outbox = useOutbox()
  await outbox.start('tove', () => undefined)
  return outbox
}

describe('what is entered', () => {
  it('is on the disk in the same tick, before the server is asked', async () => {
    const outbox = await started()
    const server = held()
    const id = outbox.add(7, line('room 0'))
    expect(told).toEqual([`keep ${id}`])
    expect(rows.get(id)).toMatchObject({ text: 'room 0', visit: 7, person: 'tove' })
    expect(outbox.waiting.map((one) => one.id)).toEqual([id])
    server.answer()
    await flushPromises()
  })
  it('leaves the disk when the server has answered that it is stored, and not before', async () => {
    const outbox = await started()
    const server = held()
    const id = outbox.add(7, line('room 0'))
    await flushPromises()
    expect(rows.has(id)).toBe(true)
    server.answer()
    await flushPromises()
    expect(rows.has(id)).toBe(false)
    expect(outbox.items).toEqual([])
  })
  it('goes in the order in which it was entered, one at a time', async () => {
    const outbox = await started()
    const server = held()
    for (const text of ['one', 'two', 'three']) outbox.add(7, line(text))
    await flushPromises()
    expect(texts()).toEqual(['one'])
    server.answer()
    await flushPromises()
    expect(texts()).toEqual(['one', 'two', 'three'])
  })
  it('is sent under one id however often it is tried', async () => {
    vi.useFakeTimers()
    const outbox = await started()
    vi.mocked(writeLine).mockRejectedValueOnce(new ApiError(0, 'unreachable', 'no'))
    vi.mocked(writeLine).mockRejectedValueOnce(new ApiError(503, 'away', 'no'))
    const id = outbox.add(7, line('room 0'))
    await vi.advanceTimersByTimeAsync(10_000)
    expect(vi.mocked(writeLine).mock.calls.map(([, body]) => body.id)).toEqual([id, id, id])
    expect(outbox.items).toEqual([])
  })
  it('waits longer with each try, and goes at once when the signal is back', async () => {
    vi.useFakeTimers()
    const outbox = await started()
    vi.mocked(writeLine).mockRejectedValue(new ApiError(0, 'unreachable', 'no'))
    outbox.add(7, line('room 0'))
    await vi.advanceTimersByTimeAsync(60_000)
    const tries = texts().length
    expect(tries).toBeGreaterThan(10)
    expect(tries).toBeLessThan(16)
    expect(outbox.unreachable).toBe(true)
    vi.mocked(writeLine).mockResolvedValue(page)
    window.dispatchEvent(new Event('online'))
    await vi.advanceTimersByTimeAsync(0)
    expect(outbox.items).toEqual([])
    expect(outbox.unreachable).toBe(false)
  })
  it('stands in the place of what was taken back into the bar, in one step', async () => {
    rows.set('old', kept('old', 'tove', { refused: { why: 'No.', code: 'x', details: [] } }))
    const outbox = await started()
    const server = held()
    const id = outbox.add(7, line('mended'), 'old')
    expect([...rows.keys()]).toEqual([id])
    expect(outbox.items.map((one) => one.id)).toEqual([id])
    server.answer()
    await flushPromises()
  })
  it('is told to be in the page alone where the disk takes nothing, and goes all the same', async () => {
    const outbox = await started()
    trouble.full = true
    outbox.add(7, line('room 0'))
    await flushPromises()
    expect(outbox.offDisk).toBe(true)
    expect(texts()).toEqual(['room 0'])
  })
})

describe('what the server says no to', () => {
  it('stays with the reason, and the next ones go', async () => {
    const outbox = await started()
    vi.mocked(writeLine).mockRejectedValueOnce(new ApiError(422, 'line_not_understood', 'Which?'))
    const id = outbox.add(7, line('supply 135'))
    outbox.add(7, line('room 0'))
    await flushPromises()
    expect(outbox.items).toMatchObject([{ id, refused: { why: 'Which?' } }])
    expect(rows.get(id)).toMatchObject({ refused: { code: 'line_not_understood' } })
    expect(outbox.waiting).toEqual([])
    expect(texts()).toEqual(['supply 135', 'room 0'])
  })
  it('waits where the session has ended, until somebody signs in', async () => {
    vi.useFakeTimers()
    const outbox = await started()
    vi.mocked(writeLine).mockRejectedValue(new ApiError(401, 'not_signed_in', 'Sign in first.'))
    outbox.add(7, line('room 0'))
    await vi.advanceTimersByTimeAsync(60_000)
    expect(outbox.signedOut).toBe(true)
    expect(texts()).toHaveLength(1)
    vi.mocked(writeLine).mockResolvedValue(page)
    await outbox.start('tove', () => undefined)
    expect(outbox.signedOut).toBe(false)
    expect(outbox.items).toEqual([])
  })
  it('holds up nothing else where the server chokes on it', async () => {
    vi.useFakeTimers()
    const outbox = await started()
    vi.mocked(writeLine).mockRejectedValueOnce(new ApiError(500, 'server_error', 'Broken.'))
    const id = outbox.add(7, line('odd'))
    outbox.add(7, line('room 0'))
    await vi.advanceTimersByTimeAsync(0)
    expect(outbox.items.map((one) => one.id)).toEqual([id])
    expect(texts()).toEqual(['odd', 'room 0'])
    await vi.advanceTimersByTimeAsync(2000)
    expect(outbox.items).toEqual([])
  })
})

describe('what waits on the disk', () => {
  it('is read before anything is asked of the server, and counted', async () => {
    rows.set('1', kept('1'))
    rows.set('2', kept('2', 'wenna'))
    const outbox = useOutbox()
    await outbox.read()
    expect(outbox.waiting).toHaveLength(2)
    expect(writeLine).not.toHaveBeenCalled()
  })
  it('goes when its own author is signed in, and stays for everybody else', async () => {
    rows.set('1', kept('1'))
    rows.set('2', kept('2', 'wenna'))
    const outbox = await started()
    expect(texts()).toEqual(['1'])
    expect([...rows.keys()]).toEqual(['2'])
    expect(outbox.waiting).toEqual([])
  })
  it('is not sent again where it was refused', async () => {
    rows.set('1', kept('1', 'tove', { refused: { why: 'No.', code: 'x', details: [] } }))
    const outbox = await started()
    expect(writeLine).not.toHaveBeenCalled()
    expect(outbox.mine).toHaveLength(1)
  })
  it('is forgotten where a page shows that it is stored', async () => {
    const outbox = await started()
    const server = held()
    const id = outbox.add(7, line('room 0'))
    await outbox.remove([id])
    expect(rows.size).toBe(0)
    server.answer(new ApiError(0, 'unreachable', 'the answer was lost'))
    await flushPromises()
    expect(outbox.items).toEqual([])
  })
})

describe('each sort', () => {
  const stamped = { id: expect.any(String), at: expect.any(String) }
  it('of entry goes by its own call, under its id', async () => {
    const outbox = await started()
    const file = new File(['x'], 'x.jpg')
    const body = { seen_version: 3, customer_words: '', signed_by: 'T', signature: [] }
    outbox.add(7, { kind: 'correction', corrects: 'e', said: 's', text: null, why: 'slip' })
    outbox.add(7, { kind: 'photo', file, station: 'vent' })
    outbox.add(7, { kind: 'marks', photo: 'p', marks: [] })
    outbox.add(7, { kind: 'closing', body })
    const window = { start_s: 0, end_s: 9, stage: null, phase: 'found' as const }
    outbox.add(7, { kind: 'trace', what: 'log_means', source: 'log', body: window })
    await flushPromises()
    expect(vi.mocked(correct).mock.calls[0]).toMatchObject([
      7,
      { ...stamped, corrects: 'e', text: null, why: 'slip' },
      4000,
    ])
    expect(vi.mocked(sendPhoto).mock.calls[0]).toMatchObject([
      7,
      file,
      { ...stamped, station: 'vent' },
    ])
    expect(vi.mocked(markPhoto).mock.calls[0]).toEqual(['p', [], 4000])
    expect(vi.mocked(closeVisit).mock.calls[0]).toEqual([7, body])
    expect(vi.mocked(writeMeans).mock.calls[0]).toMatchObject(['log', { ...stamped, ...window }])
    expect(outbox.items).toEqual([])
  })
})
