import { flushPromises, mount } from '@vue/test-utils'
import { beforeEach, describe, expect, it, vi } from 'vitest'
import { sendBundle } from '@/api/calls'
import { ApiError, type Schemas } from '@/api/client'
import { said } from '@tests/testing/said'
import EarlierVisits from '@/features/close/EarlierVisits.vue'
import FrostCard from '@/features/close/FrostCard.vue'
import PapersCard from '@/features/close/PapersCard.vue'
import { PAPERS, titleOf } from '@/features/close/papers'
import SignForm from '@/features/close/SignForm.vue'
import WayLeft from '@/features/close/WayLeft.vue'

const { items, add } = vi.hoisted(() => ({ items: [] as object[], add: vi.fn() }))
vi.mock('@/api/calls', () => ({ sendBundle: vi.fn() }))
vi.mock('@/outbox/useOutbox', () => ({
  useOutbox: () => ({ mine: items, add, unreachable: true }),
}))
const stubs = { RouterLink: { template: '<a><slot /></a>' }, SignaturePad: true }
const ways = [
  { key: 'running', name: 'Running' },
  { key: 'made_safe', name: 'Off, made safe' },
]
const page = (more: object = {}, close: object = {}) =>
  ({
    id: 7,
    unit_id: 3,
    version: 12,
    writable: true,
    tape: [{}, {}],
    standing: { title: 'Leave running', leaving: null, level: 1 },
    close: { papers: [], ways, ...close },
    ...more,
  }) as unknown as Schemas['VisitPage']
beforeEach(() => {
  sessionStorage.clear()
  items.length = 0
  add.mockReset()
  vi.mocked(sendBundle).mockReset()
})

describe('papers', () => {
  const card = (given = page()) =>
    mount(PapersCard, { props: { page: given, scheme: 'green' }, global: { stubs } })
  it('are all offered, each under its own address', () => {
    const links = card()
      .findAll('.files a')
      .map((a) => a.attributes('href'))
    for (const [file] of PAPERS) expect(links).toContain(`/api/visits/7/${file}`)
  })
  it('say the words of the house that stand on them', () =>
    expect(said(card())).toContain('on them: green'))
  it('are proved by their digest once they are kept', () => {
    const kept = { file: 'tag.pdf', sha256: 'abcdef0123456789', made_at: '2026-01-14T09:00:00Z' }
    expect(said(card(page({}, { papers: [kept] })))).toContain('Tag, A6 abcdef012345…')
  })
  it('take a bundle in, and say how much was new', async () => {
    const fresh = page({ tape: [{}, {}, {}] })
    vi.mocked(sendBundle).mockResolvedValue(fresh)
    const panel = card()
    panel.findComponent({ name: 'FileButton' }).vm.$emit('file', new File(['{}'], 'visit.json'))
    await flushPromises()
    expect(said(panel)).toContain('1 new entries were taken in from visit.json.')
    expect(panel.emitted('page')).toEqual([[fresh]])
  })
  it('answer a bundle that is refused where it was given', async () => {
    vi.mocked(sendBundle).mockRejectedValue(
      new ApiError(422, 'bundle_not_json', 'This file is not JSON.'),
    )
    const panel = card()
    panel.findComponent({ name: 'FileButton' }).vm.$emit('file', new File(['x'], 'x.json'))
    await flushPromises()
    expect(said(panel.get('[role=status]'))).toBe('This file is not JSON.')
  })
  it('are called by name', () => {
    expect(titleOf('report.pdf')).toBe('Whole report')
    expect(titleOf('strange.pdf')).toBe('strange.pdf')
  })
})

describe('how it is left', () => {
  const left = (chosen: 'made_safe' | null, told: string | null) =>
    mount(WayLeft, { props: { ways, said: told, modelValue: chosen } })
  it('is as the tape says until another way is chosen', () => {
    expect(left(null, 'running').get('.on').text()).toBe('Running')
    expect(left('made_safe', 'running').get('.on').text()).toBe('Off, made safe')
    expect(left(null, null).find('.on').exists()).toBe(false)
  })
  it('is chosen with one touch', async () => {
    const panel = left(null, null)
    await panel.findAll('input')[1]!.trigger('change')
    expect(panel.emitted('update:modelValue')).toEqual([['made_safe']])
  })
})

describe('signing', () => {
  const me = { name: 'Tove Lindgarth', role: 'technician' } as Schemas['Me']
  const form = (more: object = {}, given = page()) =>
    mount(SignForm, {
      props: { page: given, me, obstacles: [], held: false, waiting: 0, ...more },
      global: { stubs },
    })
  it('sends what was seen, said and chosen', async () => {
    const panel = form()
    await panel.get('textarea').setValue('In order.')
    await panel.get('input[name=signed-by]').setValue(' T. L. ')
    await panel.findAll('input[type=radio]')[0]!.trigger('change')
    await panel.get('form').trigger('submit')
    await flushPromises()
    const body = {
      seen_version: 12,
      customer_words: 'In order.',
      signed_by: 'T. L.',
      signature: [],
      left: 'running',
    }
    expect(add.mock.calls).toEqual([[7, { kind: 'closing', body }, undefined]])
  })
  it('waits for what is to be sent before it, and says that it is kept while nobody answers', () => {
    expect(said(form({ waiting: 2 }))).toContain('2 entries have not reached the server')
    expect(form({ waiting: 2 }).get('.big').attributes('disabled')).toBeDefined()
    items.push({ id: 'c', kind: 'closing', visit: 7 })
    const panel = form({ waiting: 1 })
    expect(said(panel)).toContain('Signed, and kept on this tablet')
    expect(said(panel)).not.toContain('has not reached')
    expect(panel.get('.big').attributes('disabled')).toBeDefined()
  })
  it('says on the button how it will be left', async () => {
    const panel = form()
    expect(said(panel.get('.big'))).toBe('Close the visit: leave running')
    await panel.findAll('input[type=radio]')[1]!.trigger('change')
    expect(said(panel.get('.big'))).toBe('Close the visit: off, made safe')
  })
  it('shows what holds the visit, and after a refusal every reason of it', async () => {
    const panel = form({ obstacles: ['A jumper is in.'] })
    expect(panel.get('.held').text()).toContain('A jumper is in.')
    const refused = {
      why: 'Held.',
      code: 'cannot_close',
      details: ['Nobody signed.', 'A jumper is in.'],
    }
    items.push({ id: 'c', kind: 'closing', visit: 7, refused })
    const after = form({ obstacles: ['A jumper is in.'] })
    expect(after.findAll('.refused li').map((li) => li.text())).toEqual(refused.details)
    expect(after.find('.held').exists()).toBe(false)
    await after.get('form').trigger('submit')
    expect(add.mock.calls[0]![2]).toBe('c')
  })
  it('waits for the lines that have not reached the server', () => {
    const panel = form({ waiting: 2 })
    expect(panel.get('.big').attributes('disabled')).toBeDefined()
    expect(said(panel)).toContain('closing waits for them.')
  })
  it('keeps the words to the customer on the tablet', async () => {
    await form().get('textarea').setValue('Half a sentence')
    expect((form().get('textarea').element as HTMLTextAreaElement).value).toBe('Half a sentence')
  })
})

describe('while there is no heat', () => {
  const frost = {
    says: 'About 10 h.',
    asked: ['floor '],
    vulnerable: [],
    temporary_heat: ['two heaters'],
    drained: [],
    refused: [],
    told: [],
  }
  it('says what was agreed and what nobody wrote down', async () => {
    const card = mount(FrostCard, { props: { frost, writable: true } })
    const rows = card.findAll('.row').map(said)
    expect(rows[0]).toContain('not written down')
    expect(rows[1]).toContain('two heaters')
    await card.findAll('.row')[0]!.trigger('click')
    expect(card.emitted('begin')).toEqual([['vulnerable ']])
  })
})

describe('earlier visits', () => {
  it('stand with advice and readings', () => {
    const visit = {
      id: 1,
      day: '2025-01-07',
      reason: 'Re-check',
      technician: 'Tove',
      level: 2,
      title: '',
      words: 'In order.',
      advice: ['Advised: a new igniter'],
      readings: ['Rise 49 °F', 'Manifold 3.50 inWC'],
    }
    const text = said(mount(EarlierVisits, { props: { visits: [visit] } }))
    for (const words of ['7 Jan 2025 · Re-check · Tove', 'a new igniter', 'Rise 49 °F · Manifold'])
      expect(text).toContain(words)
  })
})
