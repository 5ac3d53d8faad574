import { mount } from '@vue/test-utils'
import { createPinia, setActivePinia } from 'pinia'
import { beforeEach, describe, expect, it, vi } from 'vitest'
import type { Schemas } from '@/api/client'
import { said } from '@tests/testing/said'
import MovedOn from '@/features/visit/MovedOn.vue'
import StandingReason from '@/features/visit/StandingReason.vue'
import TapeEntry from '@/features/visit/TapeEntry.vue'
import VisitTabs from '@/features/visit/VisitTabs.vue'

vi.mock('@/api/calls', () => ({ judgeByNewest: vi.fn() }))
beforeEach(() => {
  setActivePinia(createPinia())
  vi.clearAllMocks()
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
  received_at: null,
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
    expect(said(panel)).toContain('This visit is still judged by what it began with.')
    expect(panel.find('button').exists()).toBe(false)
  })
})
