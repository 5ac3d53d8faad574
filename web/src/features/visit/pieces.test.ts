import { flushPromises, mount } from '@vue/test-utils'
import { createPinia, setActivePinia } from 'pinia'
import { defineComponent, h } from 'vue'
import { beforeEach, describe, expect, it, vi } from 'vitest'
import { correct, sendPhoto } from '@/api/calls'
import { ApiError, type Schemas } from '@/api/client'
import { useBar } from '@/parts/desk/bar'
import { said } from '@/testing/said'
import MovedOn from './MovedOn.vue'
import StandingReason from './StandingReason.vue'
import TapeEntry from './TapeEntry.vue'
import { useWriting, type UseWritingReturn } from './useWriting'
import VisitTabs from './VisitTabs.vue'

const { shown, add, remove, lines } = vi.hoisted(() => ({
  shown: { error: vi.fn(), success: vi.fn() },
  add: vi.fn(),
  remove: vi.fn(),
  lines: [] as object[],
}))
vi.mock('@/api/calls', () => ({ correct: vi.fn(), sendPhoto: vi.fn(), judgeByNewest: vi.fn() }))
vi.mock('naive-ui', () => ({ useMessage: () => shown }))
vi.mock('@/outbox/useOutbox', () => ({
  deviceName: () => 'tablet',
  localIso: () => '2026-01-14T09:00:00+00:00',
  useOutbox: () => ({ lines, add, remove }),
}))
beforeEach(() => {
  setActivePinia(createPinia())
  vi.clearAllMocks()
  lines.length = 0
})

const entry = (more: Partial<Schemas['EntryOut']> = {}): Schemas['EntryOut'] => ({
  id: 'e1',
  group: 'g',
  at: '2026-01-14T09:00:00Z',
  zone: '+00:00',
  author: 'Tove',
  kind: 'reading',
  text: 'Manifold',
  value: '3.5 inWC',
  tone: '',
  phase: 'left',
  stage: 'only',
  corrected_by: null,
  corrects: null,
  typed: 'mp 3.5 inWC',
  instrument: '',
  out_of_calibration: false,
  ...more,
})

describe('a line of the tape', () => {
  const line = (more = {}, props = {}) =>
    mount(TapeEntry, {
      props: { entry: entry(more), writable: true, asksWhy: false, open: true, ...props },
    })
  it('says its phase where it is a reading', () => {
    expect(said(line().get('.text'))).toBe('Manifold as left')
    expect(said(line({ kind: 'note' }).get('.text'))).toBe('Manifold')
  })
  it('tells who wrote it, when and in which zone', () =>
    expect(said(line().get('.more'))).toContain('Tove, 14 Jan 2026 09:00 +00:00'))
  it('is corrected or struck', async () => {
    const row = line()
    const [correction, strike] = row.findAll('.small')
    await correction!.trigger('click')
    await strike!.trigger('click')
    expect(row.emitted('correct')).toHaveLength(1)
    expect(row.emitted('strike')).toEqual([['']])
  })
  it('says that it was corrected, and offers it no more', () => {
    const row = line({ corrected_by: 'e2' })
    expect(said(row)).toContain('A correction stands beside it.')
    expect(row.find('.small').exists()).toBe(false)
  })
  it('asks why a danger is struck, and takes no empty answer', async () => {
    const row = line({}, { asksWhy: true, open: false })
    expect(row.get('form button').attributes('disabled')).toBeDefined()
    await row.get('input').setValue('wrong unit')
    await row.get('form').trigger('submit')
    expect(row.emitted('strike')).toEqual([['wrong unit']])
  })
  it('opens and shuts', async () => {
    const row = line()
    await row.get('.entry').trigger('click')
    expect(row.emitted('update:open')).toEqual([[false]])
  })
})

describe('a reason of the standing', () => {
  const reason: Schemas['ReasonOut'] = {
    level: 3,
    code: 'gas.manifold',
    text: 'Manifold over its limit.',
    lifts: 'Set it and read it again.',
    station: 'manifold',
    reading: '3.9 inWC',
    limit: 'at most 3.7',
    source: 'data plate',
  }
  it('says what lifts it when asked, with limit and whose it is', async () => {
    const row = mount(StandingReason, { props: { reason } })
    expect(said(row)).not.toContain('Set it')
    await row.get('.ask').trigger('click')
    expect(said(row)).toContain('Read: 3.9 inWC. Limit: at most 3.7, data plate.')
  })
  it('leads to its station', async () => {
    const row = mount(StandingReason, { props: { reason } })
    await row.get('.reason').trigger('click')
    expect(row.emitted('station')).toEqual([['manifold']])
  })
})

describe('the tabs', () => {
  const page = (more: object) =>
    ({ has_exchanger: true, paths: [], ...more }) as unknown as Schemas['VisitPage']
  const tabs = (more = {}) => mount(VisitTabs, { props: { page: page(more), view: 'gas' } })
  beforeEach(() => (Element.prototype.scrollIntoView = vi.fn()))
  it('tell which view is shown', () =>
    expect(tabs().findAll('[aria-current=page]').map(said)).toEqual(
      [' Gas 3'].map((t) => t.trim()),
    ))
  it('have no exchanger where the unit has none, and water where it makes hot water', () => {
    const names = tabs({ has_exchanger: false, paths: [{ key: 'water' }] })
      .findAll('button')
      .map(said)
    expect(names.some((name) => name.startsWith('Exchanger'))).toBe(false)
    expect(names.some((name) => name.startsWith('Water'))).toBe(true)
  })
  it('go where they are touched', async () => {
    const bar = tabs()
    await bar.findAll('button')[0]!.trigger('click')
    await bar.get('.keys').trigger('click')
    expect(bar.emitted('go')).toEqual([['arrival']])
    expect(bar.emitted('keys')).toHaveLength(1)
  })
})

describe('what moved on', () => {
  it('says nothing while nothing did', () => {
    const page = { id: 1, moved_on: [], writable: true } as unknown as Schemas['VisitPage']
    expect(mount(MovedOn, { props: { page } }).find('section').exists()).toBe(false)
  })
  it('says what the visit is judged by', () => {
    const page = {
      id: 1,
      moved_on: ['the plate changed'],
      writable: false,
    } as unknown as Schemas['VisitPage']
    const panel = mount(MovedOn, { props: { page } })
    expect(said(panel)).toContain('It is judged by what it began with.')
    expect(panel.find('button').exists()).toBe(false)
  })
})

describe('writing', () => {
  function writing(replace = vi.fn()): UseWritingReturn {
    let given: UseWritingReturn | undefined
    const Host = defineComponent(() => {
      given = useWriting(7, replace)
      return () => h('i')
    })
    mount(Host)
    return given!
  }
  it('keeps a line on the tablet first, with the phase and stage of the bar', async () => {
    const bar = useBar()
    bar.phase = 'left'
    bar.stage = 'high'
    await writing().write('mp 3.5')
    expect(add).toHaveBeenCalledWith({
      visit: 7,
      text: 'mp 3.5',
      stage: 'high',
      phase: 'left',
    })
  })
  it('counts what waits, and not what was refused or belongs to another visit', () => {
    lines.push({ visit: 7, refused: '' }, { visit: 7, refused: 'no' }, { visit: 8, refused: '' })
    const given = writing()
    expect(given.pending.value).toHaveLength(2)
    expect(given.waiting.value).toBe(1)
  })
  it('shows the page as it stands after a correction', async () => {
    const replace = vi.fn()
    const fresh = { id: 7 } as Schemas['VisitPage']
    vi.mocked(correct).mockResolvedValue(fresh)
    await writing(replace).correctEntry('e1', 'mp 3.4')
    expect(replace).toHaveBeenCalledWith(fresh)
    expect(vi.mocked(correct).mock.calls[0]![1]).toMatchObject({
      corrects: 'e1',
      text: 'mp 3.4',
      device: 'tablet',
    })
  })
  it('asks for a reason where a danger is struck without one, and says so', async () => {
    vi.mocked(correct).mockRejectedValue(new ApiError(422, 'strike_reason', 'Why?'))
    const given = writing()
    await given.correctEntry('e1', null)
    expect(given.asksWhy.value).toBe('e1')
    expect(shown.error).toHaveBeenCalledWith('Why?', expect.anything())
  })
  it('gives a correction that failed back into the bar: nothing typed is lost', async () => {
    vi.mocked(correct).mockRejectedValue(new Error('line is down'))
    await writing().correctEntry('e1', 'mp 3.4')
    expect(useBar().text).toBe('mp 3.4')
  })
  it('begins a correction with the line as it would be written again', () => {
    writing().beginCorrection(entry())
    expect(useBar().correcting).toEqual({ id: 'e1', text: 'Manifold 3.5 inWC' })
    expect(useBar().text).toBe('mp 3.5 inWC')
  })
  it('puts a refused line back into the bar, and takes it from the outbox', async () => {
    const line = { id: 'l1', text: 'mp 99' } as never
    await writing().restore(line)
    expect(useBar().text).toBe('mp 99')
    expect(remove).toHaveBeenCalledWith('l1')
  })
  it('says when a photo is with the visit, and when it is not', async () => {
    vi.mocked(sendPhoto).mockResolvedValueOnce({ id: 7 } as Schemas['VisitPage'])
    await writing().photo(new File(['x'], 'x.jpg'))
    expect(shown.success).toHaveBeenCalled()
    vi.mocked(sendPhoto).mockRejectedValueOnce(new ApiError(422, 'file_refused', 'Too large.'))
    await writing().photo(new File(['x'], 'x.jpg'))
    expect(shown.error).toHaveBeenCalledWith('Too large.', expect.anything())
    await flushPromises()
  })
})
