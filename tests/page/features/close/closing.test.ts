import { flushPromises, mount } from '@vue/test-utils'
import { describe, expect, it, vi } from 'vitest'
import { planVisit } from '@/api/firm'
import type { Schemas } from '@/api/client'
import ClosingSteps from '@/features/close/ClosingSteps.vue'
import PlanPanel from '@/features/close/PlanPanel.vue'

vi.mock('@/api/firm', () => ({ planVisit: vi.fn() }))

const steps: Schemas['ClosingStepOut'][] = [
  {
    key: 'put_back',
    title: 'Put everything back',
    holds: true,
    good: 'Nothing is left.',
    lines: [
      { text: 'A part is out: igniter.', state: 'out', starter: 'refit igniter', station: '' },
    ],
  },
  { key: 'shown', title: 'Still to show', holds: false, good: 'Everything is shown.', lines: [] },
  {
    key: 'standing',
    title: 'Standing',
    holds: false,
    good: '',
    lines: [{ text: 'Soot.', state: 'out', starter: '', station: 'exchanger' }],
  },
]
const frost: Schemas['FrostOut'] = {
  says: 'About 13 to 26 hours until pipes are at risk.',
  asked: ['floor '],
  vulnerable: ['seedlings'],
  temporary_heat: [],
  drained: [],
  refused: ['a new boiler: next year'],
  told: [],
}
const closing = (more: Partial<Schemas['ClosingOut']> = {}): Schemas['ClosingOut'] => ({
  steps,
  at_signature: [],
  words: '',
  remarks: [],
  ledger: [],
  parts: [],
  returns: [],
  frost: null,
  ...more,
})
const page = { id: 7, unit_id: 3, zone: 'UTC', writable: true } as Schemas['VisitPage']
const plan = (given: Schemas['ClosingOut']) => mount(PlanPanel, { props: { closing: given, page } })

describe('the steps of closing', () => {
  it('stand numbered in their order, and those that hold the visit say so', () => {
    const rows = mount(ClosingSteps, { props: { steps, writable: true } }).findAll('li')
    expect(rows.map((row) => row.find('i').text())).toEqual(['1', '2', '3'])
    expect(rows.map((row) => row.text().includes('holds the visit open'))).toEqual([
      true,
      false,
      false,
    ])
    expect(rows[1]?.text()).toContain('Everything is shown.')
  })
  it('begin the line that does them with one touch', async () => {
    const list = mount(ClosingSteps, { props: { steps, writable: true } })
    await list.find('button').trigger('click')
    expect(list.emitted('begin')).toEqual([['refit igniter', '']])
  })
  it('are only read on a closed visit', () => {
    expect(
      mount(ClosingSteps, { props: { steps, writable: false } }).findAll('button'),
    ).toHaveLength(0)
  })
})

describe('the plan after the visit', () => {
  it('says how long the pipes have only where the heat is off', async () => {
    expect(plan(closing()).text()).not.toContain('pipes')
    const shut = plan(closing({ frost }))
    for (const words of ['13 to 26 hours', 'seedlings', 'next year', 'not written down'])
      expect(shut.text()).toContain(words)
    await shut.findAll('.row')[1]?.trigger('click')
    expect(shut.emitted('begin')).toEqual([['tempheat ']])
  })
  it('shows a part with its kit, its rule and who said what', async () => {
    const panel = plan(
      closing({
        parts: [
          {
            name: 'Inducer',
            kit: ['gasket'],
            rule: 'own part only',
            approver: 'the owner',
            state: 'approved',
            arrives: '2026-12-01',
          },
        ],
      }),
    )
    for (const words of [
      'Inducer',
      'with: gasket',
      'own part only',
      'approved, the owner',
      '1 December 2026',
    ])
      expect(panel.text()).toContain(words)
    await panel.find('.pair button').trigger('click')
    expect(panel.emitted('begin')).toEqual([['approved owner inducer']])
  })
  it('offers a calendar only where a visit has a day', () => {
    const row = {
      reason: 'return_parts',
      name: 'Return with parts',
      day: null,
      why: 'depends on the arrival of: inducer',
      said: false,
      planned: false,
      parts: ['Hot-surface igniter with gasket'],
    }
    expect(
      plan(closing({ returns: [row] }))
        .find('a')
        .exists(),
    ).toBe(false)
    expect(
      plan(closing({ returns: [{ ...row, day: '2026-12-02' }] }))
        .find('a')
        .attributes('href'),
    ).toBe('/api/visits/7/plan.ics')
  })
  it('puts a visit to come on the round, unless it stands there or its day is over', async () => {
    const row = {
      reason: 'recheck',
      name: 'Re-check',
      day: '2099-03-04',
      why: 'intermittent fault',
      said: false,
      planned: false,
      parts: ['Hot-surface igniter with gasket'],
    }
    vi.mocked(planVisit).mockResolvedValue({ id: 9, day: '2099-03-04', technician: 'T' })
    const panel = plan(closing({ returns: [row] }))
    await panel.find('.return button').trigger('click')
    await flushPromises()
    expect(vi.mocked(planVisit).mock.calls).toEqual([
      [
        3,
        {
          reason: 'recheck',
          day: '2099-03-04',
          complaint: 'intermittent fault',
          parts: ['Hot-surface igniter with gasket'],
          returns_from: 7,
        },
      ],
    ])
    expect(panel.emitted('planned')).toHaveLength(1)
    expect(plan(closing({ returns: [{ ...row, planned: true }] })).text()).toContain('on the round')
    expect(
      plan(closing({ returns: [{ ...row, day: '2001-03-04' }] }))
        .find('.return button')
        .exists(),
    ).toBe(false)
  })
  it('keeps what was made good in the ledger, and marks what is still so', () => {
    const row = {
      text: 'Jumper IN: call.',
      since: '2026-01-14T09:00:00Z',
      by: 'T',
      found: true,
      until: null,
      until_by: '',
      put_back: 'unjump call',
    }
    const panel = plan(
      closing({
        ledger: [row, { ...row, text: 'Tee IN.', until: '2026-01-14T09:20:00Z', until_by: 'W' }],
      }),
    )
    expect(panel.findAll('.open')).toHaveLength(1)
    expect(panel.text()).toContain('found so, still so')
    expect(panel.text()).toMatch(/made good \d\d:20 W/)
  })
})
