import { mount } from '@vue/test-utils'
import { describe, expect, it } from 'vitest'
import type { Schemas } from '@/api/client'
import { said } from '@tests/testing/said'
import ReadingsAcross from '@/features/record/ReadingsAcross.vue'
import TimeLine from '@/features/record/TimeLine.vue'

const global = { stubs: { RouterLink: { template: '<a><slot /></a>' } } }
const visit = (id: number, more: Partial<Schemas['RecordVisit']> = {}): Schemas['RecordVisit'] => ({
  id,
  day: '2026-01-14',
  reason: 'Maintenance',
  technician: 'Tove',
  level: 1,
  title: 'Leave running',
  closed: true,
  complaint: '',
  words: '',
  advised: [],
  refused: [],
  done: [],
  photos: [],
  ...more,
})

describe('the time line', () => {
  const line = (visits: Schemas['RecordVisit'][]) => mount(TimeLine, { props: { visits }, global })
  it('shows the newest five, and all of them at a touch', async () => {
    const panel = line(Array.from({ length: 7 }, (_, i) => visit(i)))
    expect(panel.findAll('li')).toHaveLength(5)
    await panel.get('.more').trigger('click')
    expect(panel.findAll('li')).toHaveLength(7)
    expect(panel.get('.more').text()).toBe('Fewer')
  })
  it('tells an open visit from a closed one by its mark too', () => {
    const panel = line([visit(1, { closed: false }), visit(2)])
    const marks = panel.findAll('svg').map((svg) => svg.attributes('aria-label'))
    expect(marks).toEqual(['not shown yet', 'within limits'])
    expect(said(panel)).toContain('Leave running (open)')
  })
  it('keeps what was advised and refused apart', () => {
    const panel = line([
      visit(1, {
        advised: ['a new igniter'],
        refused: ['a new boiler'],
        done: ['Changed: filter'],
      }),
    ])
    expect(said(panel)).toContain('Advised: a new igniter')
    expect(panel.get('.refused').text()).toBe('Refused: a new boiler')
    expect(said(panel)).toContain('Done: Changed: filter')
  })
  it('has a picture for each photo', () =>
    expect(line([visit(1, { photos: ['p1', 'p2'] })]).findAll('img')).toHaveLength(2))
})

describe('readings across the visits', () => {
  const unit = {
    visits: [visit(1), visit(2)],
    rows: [
      {
        name: 'Manifold',
        unit: 'inWC',
        cells: [{ found: '3.9', left: '3.5', state: 'near' }, null],
        trend: 'rises about 0.10 inWC a year',
        points: [
          { day: '2024-01-14', value: 870, state: 'in', joined: false },
          { day: '2025-01-14', value: 970, state: 'near', joined: true },
        ],
        low: 800,
        high: null,
      },
    ],
  } as unknown as Schemas['UnitRecord']
  const table = () => mount(ReadingsAcross, { props: { unit } })
  it('show as found and as left, and a dash where nothing was read', () => {
    const cells = table().findAll('tbody td').map(said)
    expect(cells).toEqual(['rises about 0.10 inWC a year', '3.9 → 3.5', '–'])
  })
  it('mark what is near or out, by shape as well as by colour', () =>
    expect(table().findAll('.cell svg')).toHaveLength(1))
  it('can be scrolled by keyboard', () =>
    expect(table().get('.across').attributes('tabindex')).toBe('0'))
  it('draw each reading over the years with its limits, joined where nothing was renewed', () => {
    const curve = table().get('.trend svg')
    expect(curve.findAll('circle').map((dot) => dot.classes()[0])).toEqual(['in', 'near'])
    expect(curve.get('path').attributes('d')).toMatch(/^M\S+ \S+L/)
    expect(curve.findAll('.limit')).toHaveLength(1)
    expect(curve.attributes('aria-label')).toContain('rises about 0.10 inWC a year')
  })
})
