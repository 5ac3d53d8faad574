import { mount } from '@vue/test-utils'
import { describe, expect, it } from 'vitest'
import type { Schemas } from '@/api/client'
import { said } from '@tests/testing/said'
import NextStep from '@/features/visit/NextStep.vue'
import StandingPanel from '@/features/visit/StandingPanel.vue'
import TapePanel from '@/features/visit/TapePanel.vue'

const reason = {
  level: 3,
  code: 'jumper_in',
  text: 'The call is jumpered.',
  lifts: 'Take it off.',
  station: 'call',
  reading: 'in',
  limit: 'none',
  source: 'house rule',
}
const standing: Schemas['StandingOut'] = {
  level: 3,
  title: 'Do not leave running yet',
  settled: true,
  reasons: [reason],
  missing: Array.from({ length: 9 }, (_, i) => ({
    text: `thing ${i}`,
    station: 'flue',
    how: 'do it',
    minutes: 1,
    after_work: '',
    starter: `o2 ${i}`,
  })),
  next_step: {
    title: 'Show thing 0',
    why: 'because',
    minutes: 4,
    station: 'flue',
    starter: 'o2 ',
    answers: [],
    passes: [],
  },
  not_judged: [],
  leaving: null,
  several_causes: false,
}
const entry = (more: Partial<Schemas['EntryOut']>): Schemas['EntryOut'] => ({
  id: 'a',
  group: 'g',
  at: '2026-01-14T09:00:00Z',
  zone: '+01:00',
  author: 'T',
  kind: 'reading',
  text: 'Manifold',
  value: '3.5 inWC',
  tone: 'plain',
  phase: 'found',
  stage: null,
  corrected_by: null,
  corrects: null,
  typed: 'mp 3.5 inWC',
  instrument: '',
  out_of_calibration: false,
  received_at: null,
  ...more,
})

describe('the standing', () => {
  it('says its title, reasons and next step', () => {
    const text = mount(StandingPanel, { props: { standing, waiting: 0, stale: false } }).text()
    for (const words of [
      'Do not leave running yet',
      'The call is jumpered.',
      'NEXT · about 4 min',
      'Show thing 0',
    ])
      expect(text).toContain(words)
  })
  it.each([
    { waiting: 2, stale: false },
    { waiting: 0, stale: true },
  ])('is not judged while lines wait or the server is away', (away) => {
    const wrapper = mount(StandingPanel, {
      props: { standing: { ...standing, level: 1, title: 'Leave running' }, ...away },
    })
    expect(wrapper.find('h2').text()).toBe('Not judged')
    expect(wrapper.find('.next').exists()).toBe(false)
    expect(wrapper.find('h2 svg').html()).toContain('stroke-dasharray')
  })
  it('points to the station, and says what lifts it', async () => {
    const wrapper = mount(StandingPanel, { props: { standing, waiting: 0, stale: false } })
    await wrapper.find('.reason').trigger('click')
    expect(wrapper.emitted('station')).toEqual([['call']])
    await wrapper.find('.ask').trigger('click')
    expect(wrapper.find('.lifts').text()).toContain('Take it off.')
    expect(wrapper.find('.lifts').text()).toContain('house rule')
  })
  it('begins the line of a missing thing, and unfolds the long list', async () => {
    const wrapper = mount(StandingPanel, { props: { standing, waiting: 0, stale: false } })
    expect(wrapper.findAll('.open')).toHaveLength(7)
    await wrapper.find('.missing .ask').trigger('click')
    expect(wrapper.findAll('.open')).toHaveLength(9)
    await wrapper.findAll('.open')[8]?.trigger('click')
    expect(wrapper.emitted('next')).toEqual([['o2 8', 'flue']])
  })
  it('shows only its title when folded', () => {
    const wrapper = mount(StandingPanel, {
      props: { standing, waiting: 0, stale: false, folded: true },
    })
    expect(wrapper.text()).toBe('Do not leave running yet')
  })
  it('shows the dashed ring while nothing is settled', () => {
    const wrapper = mount(StandingPanel, {
      props: { standing: { ...standing, settled: false, reasons: [] }, waiting: 0, stale: false },
    })
    expect(wrapper.find('h2 svg').html()).toContain('stroke-dasharray')
  })
})

describe('the tape', () => {
  it('shows the writer’s clock, and offers correction', async () => {
    const wrapper = mount(TapePanel, { props: { tape: [entry({})], pending: [], writable: true } })
    expect(wrapper.find('time').text()).toBe('10:00')
    await wrapper.find('.entry').trigger('click')
    const buttons = wrapper.findAll('.more .small')
    await buttons[0]?.trigger('click')
    await buttons[1]?.trigger('click')
    expect(wrapper.emitted('correct')).toHaveLength(1)
    expect(wrapper.emitted('strike')).toHaveLength(1)
  })
  it('offers nothing to those who only read', async () => {
    const wrapper = mount(TapePanel, { props: { tape: [entry({})], pending: [], writable: false } })
    await wrapper.find('.entry').trigger('click')
    expect(wrapper.findAll('.more .small')).toHaveLength(0)
  })
  it('keeps a corrected line in sight, struck', () => {
    const wrapper = mount(TapePanel, {
      props: {
        tape: [
          entry({ id: 'b', kind: 'correction', text: 'Struck' }),
          entry({ corrected_by: 'b' }),
        ],
        pending: [],
        writable: true,
      },
    })
    expect(wrapper.findAll('.entry')).toHaveLength(2)
    expect(wrapper.find('.struck').text()).toContain('Manifold')
  })
  it('shows what waits and what was refused, and gives it back', async () => {
    const line = {
      id: 'p',
      kind: 'line' as const,
      visit: 1,
      person: 'tove',
      text: 'room 1',
      stage: null,
      phase: 'found' as const,
      at: '',
    }
    const wrapper = mount(TapePanel, {
      props: {
        tape: [],
        pending: [
          line,
          {
            ...line,
            id: 'q',
            refused: { why: 'The visit is closed.', code: 'visit_closed', details: [] },
          },
        ],
        writable: true,
      },
    })
    expect(wrapper.text()).toContain('To send')
    expect(wrapper.text()).toContain('The visit is closed.')
    await wrapper.find('.pending .small').trigger('click')
    expect(wrapper.emitted('restore')?.[0]).toMatchObject([{ id: 'q' }])
  })
  it('tells how to begin when nothing is written', () =>
    expect(mount(TapePanel, { props: { tape: [], pending: [], writable: true } }).text()).toContain(
      'room 0',
    ))
})

describe('the step offered next', () => {
  const step = {
    title: 'Look at the hose',
    why: '',
    minutes: 2,
    station: 'draft',
    starter: 'look hose ',
    answers: [
      { shows: 'in order', means: 'then the port, 61 %', line: 'look hose ok' },
      { shows: '0.3 inWC', means: 'then the vent, 50 %', line: '' },
    ],
    passes: [{ label: 'Not possible here', line: 'skip look hose not possible' }],
  }
  it('is answered at a touch, and a number is typed', async () => {
    const panel = mount(NextStep, { props: { step, writable: true } })
    expect(said(panel)).toContain('in order then the port, 61 %')
    await panel.findAll('.answer')[0]!.trigger('click')
    expect(panel.emitted('write')).toEqual([['look hose ok']])
    await panel.findAll('.answer')[1]!.trigger('click')
    expect(panel.emitted('next')).toEqual([['look hose ', 'draft']])
  })
  it('is passed over at a touch', async () => {
    const panel = mount(NextStep, { props: { step, writable: true } })
    await panel.get('.pass').trigger('click')
    expect(panel.emitted('write')).toEqual([['skip look hose not possible']])
  })
  it('gives its reason where nothing can be touched', () => {
    const plain = { ...step, why: 'because', answers: [] }
    expect(said(mount(NextStep, { props: { step: plain, writable: true } }))).toContain('because')
  })
})
