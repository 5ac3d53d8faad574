import { flushPromises, mount } from '@vue/test-utils'
import { createPinia, setActivePinia } from 'pinia'
import { defineComponent, h, nextTick, ref } from 'vue'
import { beforeEach, describe, expect, it, vi } from 'vitest'
import { correct, writeLine } from '@/api/calls'
import { ApiError, type Schemas } from '@/api/client'
import type { Pending } from '@/outbox/store'
import { useOutbox } from '@/outbox/useOutbox'
import { useBar } from '@/parts/desk/bar'
import { emptied, rows } from '@tests/testing/disk'
import { useWriting, type UseWritingReturn } from '@/features/visit/useWriting'

vi.mock('@/api/calls', async () => (await import('@tests/testing/writes')).writes)
vi.mock('@/outbox/store', async () => (await import('@tests/testing/disk')).disk)

const entry = (group: string) =>
  ({
    id: `e-${group}`,
    group,
    text: 'Manifold',
    value: '3.5 inWC',
    typed: 'mp 3.5 inWC',
  }) as Schemas['EntryOut']
const shows = (...groups: string[]) =>
  ({ id: 7, tape: groups.map(entry), photos: [] }) as unknown as Schemas['VisitPage']
const page = ref<Schemas['VisitPage']>()

async function writing(): Promise<UseWritingReturn> {
  let given: UseWritingReturn | undefined
  const Host = defineComponent(() => {
    given = useWriting(7, page)
    return () => h('i')
  })
  mount(Host)
  await useOutbox().start('tove', (fresh) => (page.value = fresh))
  return given!
}
const kept = (id: string, more: Partial<Pending> = {}) => {
  const item = {
    id,
    kind: 'line',
    text: id,
    stage: null,
    phase: 'found',
    visit: 7,
    person: 'tove',
    at: id,
  }
  rows.set(id, { ...item, ...more } as Pending)
}
const refused = { why: 'No.', code: 'x', details: [] }
/** Types a line and presses Enter, as the bar does. */
function enter(given: UseWritingReturn, text: string): void {
  const bar = useBar()
  given.write(text)
  bar.sent = { line: text }
  bar.text = ''
}

beforeEach(() => {
  setActivePinia(createPinia())
  vi.resetAllMocks()
  emptied()
  page.value = shows()
  vi.mocked(writeLine).mockImplementation(async (_, body) => shows(body.id))
  vi.mocked(correct).mockImplementation(async (_, body) => shows(body.id))
})

describe('a line', () => {
  it('is kept with the phase and stage of the bar', async () => {
    const given = await writing()
    Object.assign(useBar(), { phase: 'left', stage: 'high' })
    vi.mocked(writeLine).mockReturnValue(new Promise(() => undefined))
    given.write('mp 3.5')
    expect([...rows.values()]).toMatchObject([
      { kind: 'line', visit: 7, text: 'mp 3.5', stage: 'high', phase: 'left' },
    ])
    expect(given.waiting.value).toBe(1)
  })
  it('is never shown twice: what stands on the tape waits no more', async () => {
    vi.mocked(writeLine).mockReturnValue(new Promise(() => undefined)) // its answer is lost
    const given = await writing()
    given.write('mp 3.5')
    const [id] = [...rows.keys()]
    page.value = shows(id!)
    await nextTick()
    expect(given.pending.value).toEqual([])
    await flushPromises()
    expect(rows.size).toBe(0)
  })
  it('counts while it waits, and not when it was refused or belongs to another visit', async () => {
    vi.mocked(writeLine).mockRejectedValue(new ApiError(0, 'unreachable', 'no'))
    kept('1')
    kept('2', { refused })
    kept('3', { visit: 8 })
    const given = await writing()
    expect(given.pending.value.map((one) => one.id)).toEqual(['1', '2'])
    expect(given.waiting.value).toBe(1)
  })
  it('that is refused goes back where it was typed', async () => {
    vi.mocked(writeLine).mockRejectedValue(new ApiError(422, 'line_not_understood', 'Which?'))
    const given = await writing()
    enter(given, 'supply 135')
    await flushPromises()
    expect(useBar().text).toBe('supply 135')
    expect(rows.size).toBe(1)
  })
  it('that is refused does not disturb what is typed by now', async () => {
    vi.mocked(writeLine).mockRejectedValue(new ApiError(422, 'line_not_understood', 'Which?'))
    const given = await writing()
    enter(given, 'supply 135')
    useBar().text = 'o2 6'
    await flushPromises()
    expect(useBar().text).toBe('o2 6')
    expect(given.pending.value).toMatchObject([{ text: 'supply 135', refused: { why: 'Which?' } }])
  })
  it('of an earlier day that was refused stays in the list', async () => {
    kept('1', { refused })
    await writing()
    await flushPromises()
    expect(useBar().text).toBe('')
  })
  it('taken back into the bar stays on the disk until another one stands in its place', async () => {
    kept('1', { refused })
    const given = await writing()
    given.restore(given.pending.value[0]!)
    expect(useBar().text).toBe('1')
    expect([...rows.keys()]).toEqual(['1'])
    given.write('mended')
    expect([...rows.values()]).toMatchObject([{ text: 'mended' }])
    await flushPromises()
    expect(rows.size).toBe(0)
  })
  it('taken back and wiped out is still there', async () => {
    kept('1', { refused })
    const given = await writing()
    given.restore(given.pending.value[0]!)
    useBar().text = ''
    await nextTick()
    given.write('something else')
    await flushPromises()
    expect([...rows.keys()]).toEqual(['1'])
  })
  it('is discarded by its author alone', async () => {
    kept('1', { refused })
    const given = await writing()
    given.discard(given.pending.value[0]!)
    await flushPromises()
    expect(rows.size).toBe(0)
  })
})

describe('a correction', () => {
  it('is kept as a line is, and leaves the bar', async () => {
    page.value = shows('g')
    const given = await writing()
    given.beginCorrection(entry('g'))
    expect(useBar().correcting).toEqual({ id: 'e-g', text: 'Manifold 3.5 inWC' })
    expect(useBar().text).toBe('mp 3.5 inWC')
    given.correctEntry('e-g', 'mp 3.4')
    expect(useBar().correcting).toBeNull()
    expect([...rows.values()]).toMatchObject([
      { kind: 'correction', corrects: 'e-g', text: 'mp 3.4', said: 'Manifold 3.5 inWC' },
    ])
    await flushPromises()
    expect(vi.mocked(correct).mock.calls[0]![1]).toMatchObject({ corrects: 'e-g', text: 'mp 3.4' })
  })
  it('asks for a reason where a danger is struck without one', async () => {
    vi.mocked(correct).mockRejectedValueOnce(new ApiError(422, 'strike_reason', 'Why?'))
    const given = await writing()
    given.correctEntry('e1', null)
    await flushPromises()
    expect(given.asksWhy.value).toBe('e1')
    expect(given.pending.value).toEqual([])
    given.correctEntry('e1', null, 'a slip')
    expect(given.asksWhy.value).toBe('')
  })
  it('that is refused goes back into the bar as a correction', async () => {
    vi.mocked(correct).mockRejectedValue(new ApiError(422, 'line_not_understood', 'Which?'))
    page.value = shows('g')
    const given = await writing()
    const bar = useBar()
    given.correctEntry('e-g', 'mp ?')
    bar.sent = { line: 'mp ?' }
    await flushPromises()
    expect(bar.text).toBe('mp ?')
    expect(bar.correcting).toEqual({ id: 'e-g', text: 'Manifold 3.5 inWC' })
  })
})

it('a photo is kept with the place that is looked at', async () => {
  const given = await writing()
  useBar().station = 'vent'
  given.photo(new File(['x'], 'x.jpg'))
  expect([...rows.values()]).toMatchObject([{ kind: 'photo', station: 'vent' }])
})
