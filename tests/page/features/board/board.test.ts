import { mount, RouterLinkStub } from '@vue/test-utils'
import { describe, expect, it, vi } from 'vitest'
import { nextTick } from 'vue'
import type { Schemas } from '@/api/client'
import BoardCard from '@/features/board/BoardCard.vue'
import BoardGrid from '@/features/board/BoardGrid.vue'
import OnNoDay from '@/features/board/OnNoDay.vue'
import { byCell, cellKey } from '@/features/board/cells'
import PlanSheet from '@/features/board/PlanSheet.vue'

const visit = (more: Partial<Schemas['BoardVisit']> = {}): Schemas['BoardVisit'] => ({
  id: 7,
  unit_id: 3,
  label: 'F-2',
  place: 'East cellar',
  site: 'Orrin Street',
  zone: 'UTC',
  reason_key: 'recheck',
  reason: 'Re-check',
  complaint: 'Ticks at night',
  since: '',
  there: '',
  task: '',
  day: '2026-11-30',
  start: '10:30:00',
  turn: 1,
  technician_id: 1,
  helpers: [],
  state: 'planned',
  level: 2,
  urgent: 2,
  title: 'Leave running',
  vulnerable: '',
  over: 0,
  plan_version: 4,
  ...more,
})
const board = (more: Partial<Schemas['Board']> = {}): Schemas['Board'] => ({
  today: '2026-11-29',
  days: ['2026-11-29', '2026-11-30'],
  people: [
    { id: 1, name: 'Tove', van: 'van 2', licence_until: '2027-01-04' },
    { id: 2, name: 'Wenna', van: '', licence_until: null },
  ],
  visits: [visit()],
  on_no_day: [],
  left_bad: [],
  due: [],
  due_in_all: 0,
  reasons: { recheck: 'Re-check', no_heat: 'No heat' },
  may_plan: true,
  ...more,
})
const links = { global: { stubs: { RouterLink: RouterLinkStub } } }

describe('a visit on the board', () => {
  it('says what it is, when, and how long it is overdue', () => {
    const text = mount(BoardCard, { props: { visit: visit({ over: 2 }), dated: true } }).text()
    for (const words of [
      'F-2',
      'East cellar',
      '10:30',
      're-check',
      '2 days overdue',
      'Ticks at night',
    ])
      expect(text).toContain(words)
  })

  it('under way it says how the unit stands instead of why it was called', () => {
    const text = mount(BoardCard, { props: { visit: visit({ state: 'under_way' }) } }).text()
    expect(text).toContain('Leave running')
    expect(text).not.toContain('Ticks at night')
  })

  it('opens by Enter, moves by the arrows, and does not when it is closed', async () => {
    const card = mount(BoardCard, { props: { visit: visit() } })
    await card.trigger('keydown', { key: 'Enter' })
    await card.trigger('keydown', { key: 'ArrowRight' })
    await card.trigger('keydown', { key: 'ArrowUp' })
    expect(card.emitted('open')).toHaveLength(1)
    expect(card.emitted('shift')).toEqual([
      [1, 0],
      [0, -1],
    ])
    const closed = mount(BoardCard, { props: { visit: visit({ state: 'closed' }) } })
    await closed.trigger('keydown', { key: 'ArrowRight' })
    expect(closed.emitted('shift')).toBeUndefined()
    expect(closed.attributes('draggable')).toBe('false')
  })
})

describe('the board', () => {
  const grid = (shown = board()) =>
    mount(BoardGrid, {
      props: {
        board: shown,
        cell: (person: number, day: string) =>
          shown.visits.filter((one) => one.technician_id === person && one.day === day),
        find: (id: number) => shown.visits.find((one) => one.id === id),
      },
    })

  it('moves a visit to the day and the person it is dropped on', async () => {
    const shown = grid()
    await shown.get("[data-cell='2 2026-11-29']").trigger('drop', {
      dataTransfer: { getData: () => '7' },
    })
    expect(shown.emitted('move')![0]).toEqual([
      expect.objectContaining({ id: 7 }),
      { technician: 2, day: '2026-11-29', before: null },
    ])
  })

  it('puts it before the visit that it is dropped on, and never before itself', async () => {
    const other = visit({ id: 9, technician_id: 2 })
    const shown = grid(board({ visits: [visit(), other] }))
    const data = { dataTransfer: { getData: () => '7' } }
    await shown.get("[data-visit='9']").trigger('drop', data)
    await shown.get("[data-visit='7']").trigger('drop', data)
    expect(
      shown.emitted('move')!.map((args) => (args[1] as { before: number | null }).before),
    ).toEqual([9, null])
  })

  it('warns of a licence that ends soon', () => {
    expect(grid().text()).toContain('licence ends')
  })

  it('moves by a key to the next person, and not beyond the last', async () => {
    const shown = grid(board({ visits: [visit({ technician_id: 2 })] }))
    await shown.get("[data-visit='7']").trigger('keydown', { key: 'ArrowDown' })
    expect(shown.emitted('move')).toBeUndefined()
    await shown.get("[data-visit='7']").trigger('keydown', { key: 'ArrowUp' })
    expect(shown.emitted('move')![0]![1]).toMatchObject({ technician: 1 })
  })
})

describe('what is on no day', () => {
  it('names units that nobody planned, each with a way to plan it', async () => {
    const left = {
      id: 5,
      name: 'RT-2 · Roof',
      site: 'Tallow Lane',
      level: 4,
      title: 'Off, made safe',
      day: '2026-10-08',
      vulnerable: '',
    }
    const shown = mount(OnNoDay, { props: { board: board({ left_bad: [left] }) } })
    expect(shown.text()).toContain('Left bad, nothing planned · 1')
    await shown.get('.unit').trigger('click')
    expect(shown.emitted('plan')).toEqual([[left, 'recheck']])
  })
})

describe('the plan of a visit', () => {
  const sheet = (one = visit()) =>
    mount(PlanSheet, { props: { visit: one, board: board(), trouble: '', busy: false }, ...links })

  it('keeps whose it is, when, with whom and why', async () => {
    const shown = sheet()
    await shown.get('input[name=plan_day]').setValue('2026-12-02')
    await shown.get('.with input').trigger('change')
    await shown
      .findAll('.chip')
      .find((chip) => chip.text() === 'No heat')!
      .trigger('click')
    await shown.get('form').trigger('submit')
    expect(shown.emitted('keep')![0]![0]).toMatchObject({
      technician: 1,
      day: '2026-12-02',
      start: '10:30',
      helpers: [2],
      reason: 'no_heat',
    })
  })

  it('taken off everybody it has no helpers either', async () => {
    const shown = sheet(visit({ helpers: [2] }))
    await shown
      .findAll('.chip')
      .find((chip) => chip.text() === 'nobody yet')!
      .trigger('click')
    await shown.get('form').trigger('submit')
    expect(shown.emitted('keep')![0]![0]).toMatchObject({ technician: null, helpers: [] })
  })

  it('is cancelled with a reason alone, and not once it is begun', async () => {
    const shown = sheet()
    const button = shown.get('.cancel button')
    expect(button.attributes('disabled')).toBeDefined()
    await shown.get('input[name=cancel_why]').setValue('heat is back')
    await shown.get('.cancel').trigger('submit')
    expect(shown.emitted('cancel')).toEqual([['heat is back']])
    expect(
      sheet(visit({ state: 'under_way' }))
        .find('.cancel')
        .exists(),
    ).toBe(false)
  })
})

describe('whose visit stands where', () => {
  it('is one cell for each person and day, those somebody helps on after their own', () => {
    const cells = byCell([
      visit({ id: 1, technician_id: 2, helpers: [1] }),
      visit({ id: 2, technician_id: 1 }),
      visit({ id: 3, technician_id: 1, day: '2026-12-01' }),
    ])
    const ids = (person: number, day: string) =>
      cells.get(cellKey(person, day))?.map(({ id }) => id)
    expect(ids(1, '2026-11-30')).toEqual([2, 1])
    expect(ids(2, '2026-11-30')).toEqual([1])
    expect(ids(1, '2026-12-01')).toEqual([3])
    expect(ids(2, '2026-12-01')).toBeUndefined()
  })

  it('leaves out a visit that is on nobody’s day', () => {
    expect(byCell([visit({ technician_id: null })]).size).toBe(0)
  })
})

describe('a board of many visits', () => {
  const many = board({
    people: [1, 2, 3].map((id) => ({ id, name: `P${id}`, van: '', licence_until: null })),
    visits: Array.from({ length: 150 }, (_, id) => visit({ id, technician_id: 1 + (id % 3) })),
  })
  const cells = byCell(many.visits)

  it('is drawn a screen at a time, from the top, and in the end whole', async () => {
    vi.useFakeTimers()
    const grid = mount(BoardGrid, {
      props: {
        board: many,
        cell: (person: number, day: string) => cells.get(cellKey(person, day)) ?? [],
        find: () => undefined,
      },
    })
    const rows = () => grid.findAll('tbody tr').map((row) => row.findAll('[data-visit]').length)
    expect(rows()).toEqual([50, 50, 0])
    vi.advanceTimersByTime(100)
    await nextTick()
    expect(rows()).toEqual([50, 50, 50])
    vi.useRealTimers()
  })
})
