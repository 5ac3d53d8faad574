import { mount } from '@vue/test-utils'
import { describe, expect, it } from 'vitest'
import type { Schemas } from '@/api/client'
import { deskSpy, onDesk } from '@tests/testing/desk'
import { said } from '@tests/testing/said'
import LeftAbnormal from '@/features/string/LeftAbnormal.vue'
import NextTest from '@/features/string/NextTest.vue'
import SequenceTrack from '@/features/string/SequenceTrack.vue'
import SuspectsPanel from '@/features/string/SuspectsPanel.vue'

const offer = (title: string, more: Partial<Schemas['OfferOut']> = {}): Schemas['OfferOut'] => ({
  title,
  minutes: 2,
  why: '1.0 bit',
  caution: '',
  starter: `${title.toLowerCase()} `,
  meanings: [{ outcome: 'open', share: 0.4, first: 'Limit', first_share: 0.99 }],
  answers: [{ shows: 'Open', means: 'probably the limit, 99 %', line: 'ohms limit open' }],
  passes: [{ label: 'Not possible here', line: 'skip ohms limit not possible' }],
  ...more,
})
const found = (more: Partial<Schemas['SuspectsOut']> = {}): Schemas['SuspectsOut'] => ({
  headline: 'Limit comes first',
  given: 1,
  suspects: [
    {
      part: 'limit',
      kind: 'part',
      name: 'Limit',
      share: 0.7,
      faults: ['open', 'opens early', 'third'],
    },
  ],
  next: offer('Volts'),
  others: [offer('Ohms')],
  conflicts: [],
  clear: false,
  proof: [],
  jumpers: [],
  beforehand: [],
  ...more,
})
const page = (more: object = {}) =>
  ({
    zone: 'UTC',
    writable: true,
    jumpers: [],
    tape: [],
    close: { put_backs: [] },
    ...more,
  }) as unknown as Schemas['VisitPage']
const show = (given: Partial<Schemas['SuspectsOut']> = {}, of: object = {}) => {
  const desk = deskSpy()
  const props = { found: found(given), page: page(of) }
  return { desk, panel: mount(SuspectsPanel, { props, ...onDesk(desk) }) }
}

describe('the suspects', () => {
  it('are summed up in the one line that the core has for it', () =>
    expect(show({ headline: 'Nothing is wrong here' }).panel.get('h2').text()).toBe(
      'Nothing is wrong here',
    ))
  it('say what proves a cure', () =>
    expect(
      show({ proof: ['Read it again.'] })
        .panel.get('.proof')
        .text(),
    ).toBe('Read it again.'))
  it('say when a jumper goes on that the control does not begin with', () =>
    expect(
      show({ jumpers: ['Put it on once the call has begun.'] })
        .panel.get('.jumper')
        .text(),
    ).toBe('Put it on once the call has begun.'))
  it('write an outcome of the offered test at a touch, and why it was passed over', async () => {
    const { desk, panel } = show()
    await panel.get('.answer').trigger('click')
    await panel.get('.pass').trigger('click')
    expect(desk.write).toHaveBeenNthCalledWith(1, 'ohms limit open')
    expect(desk.write).toHaveBeenNthCalledWith(2, 'skip ohms limit not possible')
  })
  it('say what does not fit, as it was typed', () => {
    const conflict = { name: 'volts', shown: '25.9 V', expected: '0 V', entry_id: 'e1' }
    const entry = { id: 'e1', text: 'Volts across limit', value: '25.9 V' }
    const { panel } = show({ conflicts: [conflict] }, { tape: [entry] })
    expect(said(panel.get('.conflict'))).toContain('Volts across limit 25.9 V')
    expect(said(panel.get('.conflict'))).toContain('the rest says: 0 V')
  })
  it('name no third fault of a part', () =>
    expect(show().panel.get('.suspect .muted').text()).toBe('open; opens early'))
  it('begin the line of the cause once it is clear', async () => {
    const { desk, panel } = show({ clear: true })
    await panel.get('.strong').trigger('click')
    expect(desk.begin).toHaveBeenCalledWith('cause limit')
  })
  it('offer no cause to who only reads', () =>
    expect(show({ clear: true }, { writable: false }).panel.find('.strong').exists()).toBe(false))
})

describe('the next test', () => {
  const next = (more = {}) =>
    mount(NextTest, {
      props: { next: offer('Volts', more), others: [offer('Ohms')], writable: true },
    })
  it('says what each outcome would mean', () =>
    expect(said(next().get('li'))).toBe('Open 40 % → probably the limit, 99 %'))
  it('leaves a number to be typed', () => {
    const number = [{ shows: '26 V', means: 'probably the limit, 90 %', line: '' }]
    expect(next({ answers: number }).find('.answer').exists()).toBe(false)
  })
  it('cautions where the danger is', () => {
    expect(next().find('.caution').exists()).toBe(false)
    expect(said(next({ caution: 'Live terminals.' }).get('.caution'))).toContain('Live terminals.')
  })
  it('is one touch; something else instead is two', async () => {
    const panel = next()
    await panel.get('.offer').trigger('click')
    await panel.get('.ask').trigger('click')
    await panel.get('.others button').trigger('click')
    expect(panel.emitted('begin')).toEqual([['volts '], ['ohms ']])
  })
})

describe('what is left abnormal', () => {
  const left = (more: object) => mount(LeftAbnormal, { props: { page: page(more) } })
  const jumper = {
    device: 'limit',
    how: 'jumper',
    text: 'Jumper IN: limit.',
    put_back: 'unjump limit',
    since: '2026-01-14T09:05:00Z',
    found: false,
  }
  it('says when there is nothing', () => expect(said(left({}))).toContain('Nothing left abnormal'))
  it('tells since when, at the clock of the place', () => {
    expect(said(left({ jumpers: [jumper] }))).toContain('Since 09:05')
    expect(said(left({ jumpers: [jumper], zone: 'Etc/GMT-10' }))).toContain('Since 19:05')
  })
  it('begins the line that makes it good', async () => {
    const panel = left({ jumpers: [jumper] })
    await panel.get('.left button').trigger('click')
    expect(panel.emitted('begin')).toEqual([['unjump limit']])
  })
  it('names what has to be put back', () => {
    const text = said(left({ close: { put_backs: ['The test port is open.'] } }))
    expect(text).toContain('Left abnormal')
    expect(text).toContain('The test port is open.')
  })
})

describe('a moment of the sequence', () => {
  const event = {
    key: 'flame',
    name: 'Flame',
    earliest_s: 10,
    latest_s: 20,
    seen_s: 15,
    state: 'in',
    by_eye: true,
  }
  const track = (more = {}) =>
    mount(SequenceTrack, {
      props: { event: { ...event, ...more } as Schemas['EventOut'], longest: 100 },
    })
  it('shows when it should begin and when it did', () => {
    expect(track().get('.window').attributes('style')).toContain('left: 10%')
    expect(track().get('.window').attributes('style')).toContain('width: 10%')
    expect(said(track().get('.seen'))).toBe('15.0 s')
  })
  it('shows a window that would be too narrow to see', () =>
    expect(track({ latest_s: 10 }).get('.window').attributes('style')).toContain('width: 0.5%'))
  it('says what only a meter can tell', () => {
    expect(track({ seen_s: null, by_eye: false }).find('.seen').exists()).toBe(false)
    expect(said(track({ by_eye: false }))).toContain('by meter')
  })
})
