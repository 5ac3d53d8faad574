import { mount } from '@vue/test-utils'
import { describe, expect, it } from 'vitest'
import type { Schemas } from '@/api/client'
import { deskSpy, onDesk } from '@tests/testing/desk'
import { said } from '@tests/testing/said'
import BeforeHere from '@/features/arrival/BeforeHere.vue'
import CodeChart from '@/features/arrival/CodeChart.vue'
import CodeRead from '@/features/arrival/CodeRead.vue'
import CodeTapper from '@/features/arrival/CodeTapper.vue'
import FirstMinute from '@/features/arrival/FirstMinute.vue'
import FirstYou from '@/features/arrival/FirstYou.vue'

const earlier = (day: string, more = {}): Schemas['EarlierVisit'] => ({
  id: 1,
  day,
  reason: 'Maintenance',
  technician: 'Tove Lindgarth',
  level: 1,
  title: 'Leave running',
  words: 'In order.',
  advice: [],
  readings: [],
  ...more,
})
const page = (more: object = {}) =>
  ({
    writable: true,
    room_co: null,
    complaint: '',
    earlier: [],
    tape: [],
    ...more,
  }) as unknown as Schemas['VisitPage']
const arrival = (more: object = {}) =>
  ({ refused: [], healthy: null, ...more }) as unknown as Schemas['ArrivalOut']

describe('first, you', () => {
  const show = (more = {}) => {
    const desk = deskSpy()
    const panel = mount(FirstYou, {
      props: { page: page(more), gasSmell: ['Get out.', 'Call from outside.'] },
      ...onDesk(desk),
    })
    return { desk, panel }
  }
  it('says that room CO was not read, or what it was', () => {
    expect(said(show().panel)).toContain('Room CO on entry: not read')
    expect(said(show({ room_co: { text: '0', unit: 'ppm' } }).panel)).toContain('0 ppm')
  })
  it('begins the reading of room CO with one touch', async () => {
    const { desk, panel } = show()
    await panel.findAll('.btn')[0]!.trigger('click')
    expect(desk.begin).toHaveBeenCalledWith('room ', 'room')
  })
  it('says what to do at a smell of gas before anything is written', async () => {
    const { desk, panel } = show()
    await panel.get('.danger').trigger('click')
    expect(panel.findAll('.alarm li').map((li) => li.text())).toEqual([
      'Get out.',
      'Call from outside.',
    ])
    expect(desk.write).not.toHaveBeenCalled()
    await panel.get('.alarm button').trigger('click')
    expect(desk.write).toHaveBeenCalledWith('found gas smell')
  })
})

describe('one minute of triage', () => {
  const row = (more = {}): Schemas['TriageOut'] => ({
    key: 'power',
    question: 'Power?',
    good: 'look line ok',
    bad: 'look line bad',
    begin: '',
    answered: '',
    ...more,
  })
  const show = (rows: Schemas['TriageOut'][], writable = true) => {
    const desk = deskSpy()
    return {
      desk,
      panel: mount(FirstMinute, { props: { triage: rows, writable }, ...onDesk(desk) }),
    }
  }
  it('writes an answer with one touch', async () => {
    const { desk, panel } = show([row()])
    const [good, bad] = panel.findAll('button')
    await good!.trigger('click')
    await bad!.trigger('click')
    expect(desk.write).toHaveBeenNthCalledWith(1, 'look line ok')
    expect(desk.write).toHaveBeenNthCalledWith(2, 'look line bad')
  })
  it('begins a line where a number is wanted', async () => {
    const { desk, panel } = show([row({ begin: 'wp ' })])
    await panel.get('button').trigger('click')
    expect(desk.begin).toHaveBeenCalledWith('wp ')
  })
  it.each([
    ['', 'not shown yet'],
    ['ok', 'within limits'],
    ['read', 'within limits'],
    ['bad', 'out of limits'],
  ])('marks the answer “%s” as %s', (answered, mark) =>
    expect(
      show([row({ answered })])
        .panel.get('svg')
        .attributes('aria-label'),
    ).toBe(mark),
  )
  it('is only read on a closed visit', () =>
    expect(show([row()], false).panel.get('button').attributes('disabled')).toBeDefined())
})

describe('what came before', () => {
  const show = (given: object, of: object = {}) =>
    mount(BeforeHere, { props: { page: page(given), arrival: arrival(of) } })
  it('says when nobody has written yet', () =>
    expect(said(show({}))).toContain('Nobody has written on this unit before.'))
  it('shows the newest four, each with how it was left', () => {
    const days = ['2025-05-01', '2025-04-01', '2025-03-01', '2025-02-01', '2025-01-01']
    const panel = show({ earlier: days.map((day) => earlier(day)) })
    expect(panel.findAll('.before')).toHaveLength(4)
    expect(said(panel)).not.toContain('2025-01-01')
    expect(said(panel)).toContain('leave running.')
  })
  it('repeats the complaint and what was refused in their own words', () => {
    const panel = show({ complaint: 'It clicks.' }, { refused: ['Refused: a new boiler'] })
    expect(said(panel)).toContain('“It clicks.”')
    expect(said(panel)).toContain('Refused: a new boiler')
  })
  it('keeps at hand what it read when it was healthy', () => {
    const healthy = earlier('2024-10-02', { readings: ['Manifold 3.50 inWC', 'Rise 49 °F'] })
    expect(said(show({}, { healthy }))).toContain('Manifold 3.50 inWC · Rise 49 °F')
  })
})

describe('the code', () => {
  const codes = [
    { pattern: '2 3', meaning: 'pressure switch did not prove' },
    { pattern: '3 4', meaning: 'ignition failed' },
  ]
  it('is read against the chart', () => {
    const known = mount(CodeRead, {
      props: { pattern: '2 3', meaning: 'x', hint: 'h', begun: true },
    })
    expect(said(known)).toContain('Write code 2 3')
    const strange = mount(CodeRead, { props: { pattern: '9 9', hint: 'h', begun: true } })
    expect(said(strange)).toContain('count it again')
    const none = mount(CodeRead, { props: { pattern: '', hint: 'Hold it.', begun: false } })
    expect(said(none)).toContain('Hold it.')
    expect(none.findAll('button').every((b) => b.attributes('disabled') !== undefined)).toBe(true)
  })
  it('is begun from the chart by a touch', async () => {
    const chart = mount(CodeChart, { props: { codes, shown: 'digits' } })
    await chart.findAll('button')[1]!.trigger('click')
    expect(chart.emitted('begin')).toEqual([['code 3 4']])
    expect(chart.get('details').attributes('open')).toBeDefined()
  })
  it('is tapped in colours, those of the chart alone', async () => {
    const coloured = [{ pattern: '3 red 1 amber', meaning: 'gas valve' }]
    const tapper = mount(CodeTapper, { props: { codes: coloured, shown: 'colours' } })
    const lamps = tapper.findAll('.colour')
    expect(lamps.map((lamp) => lamp.text())).toEqual(['red', 'amber'])
    for (const lamp of [0, 0, 0, 1]) await lamps[lamp]!.trigger('click')
    expect(said(tapper)).toContain('gas valve')
    const again = tapper.findAll('button').find((b) => b.text() === 'Again')!
    await again.trigger('click')
    expect(said(tapper)).toContain('Tap the colour at each flash.')
  })
})
