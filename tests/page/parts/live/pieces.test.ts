import { mount } from '@vue/test-utils'
import { describe, expect, it } from 'vitest'
import type { Schemas } from '@/api/client'
import { said } from '@tests/testing/said'
import type { Lane } from '@/parts/live/lanes'
import LiveDips from '@/parts/live/LiveDips.vue'
import LiveHead from '@/parts/live/LiveHead.vue'
import LiveLane from '@/parts/live/LiveLane.vue'

const page = (writable = true) =>
  ({
    zone: 'UTC',
    writable,
    instruments: [
      { id: 1, name: 'Analyzer 1' },
      { id: 2, name: 'Clamp meter' },
    ],
  }) as unknown as Schemas['VisitPage']
const capture = (more = {}) =>
  ({
    id: 'c',
    started_at: '2026-01-14T09:00:00Z',
    ended_at: null,
    simulated: false,
    recorders: [],
    ...more,
  }) as Schemas['CaptureOut']

describe('the head of the live panel', () => {
  const head = (given: Schemas['CaptureOut'] | null, chosen = [1], writable = true) =>
    mount(LiveHead, { props: { page: page(writable), capture: given, chosen } })
  it('says since when it records, and when it was over', () => {
    expect(said(head(null))).toContain('Live Analyzer 1')
    expect(said(head(null, []))).toContain('no instrument is chosen')
    expect(said(head(capture()))).toContain('recording on this visit since 09:00')
    const over = capture({ ended_at: '2026-01-14T09:20:00Z' })
    expect(said(head(over))).toContain('recorded from 09:00 to 09:20')
  })
  it('takes an instrument in and out', async () => {
    const panel = head(null)
    await panel.get('.which').trigger('click')
    for (const chip of panel.findAll('.chip')) await chip.trigger('click')
    expect(panel.emitted('update:chosen')).toEqual([[[]], [[2]]])
  })
  it('records nothing without an instrument, nor on a visit that is only read', () => {
    expect(head(null, []).get('.strong').attributes('disabled')).toBeDefined()
    expect(head(null, [1], false).get('.strong').attributes('disabled')).toBeDefined()
  })
  it('stops, or goes back from one that is over', async () => {
    const running = head(capture())
    expect(running.get('.btn').text()).toBe('Stop')
    await running.get('.btn').trigger('click')
    expect(running.emitted('end')).toHaveLength(1)
    const over = head(capture({ ended_at: '2026-01-14T09:20:00Z' }), [1], false)
    expect(over.get('.btn').text()).toBe('Back')
    expect(over.get('.btn').attributes('disabled')).toBeUndefined()
  })
})

describe('a lane', () => {
  const lane = {
    quantity: 'draft_pa',
    name: 'Draft',
    unit: 'inWC',
    points: 'M0 0',
    least: '0.5',
    most: '0.9',
    now: '0.8',
  }
  const drawn = () =>
    mount(LiveLane, {
      props: {
        lane: lane as unknown as Lane,
        width: 700,
        height: 44,
        ticks: [10, 20],
        busy: false,
      },
    })
  it('shows its newest value with its unit, and its ends', () => {
    expect(said(drawn().get('b'))).toBe('0.8 inWC')
    expect(
      drawn()
        .findAll('.ends i')
        .map((i) => i.text()),
    ).toEqual(['0.9', '0.5'])
  })
  it('marks the events that lie on it', () => expect(drawn().findAll('.tick')).toHaveLength(2))
  it('is asked for its dips', async () => {
    const panel = drawn()
    await panel.get('.ask').trigger('click')
    expect(panel.emitted('dips')).toHaveLength(1)
  })
})

describe('dips', () => {
  const shown = { text: '0.48', unit: 'inWC' }
  const dip = {
    at_s: 12.4,
    long_s: 1.26,
    half_width_s: 0.1,
    reversed: false,
    least: shown,
    depth: shown,
    order: ['Draft', 'Flame'],
    still: ['Supply'],
  }
  const given = (more = {}) =>
    ({
      says: ['1 dip under 0.60 inWC', 'Only 19 min without one would say that it is gone.'],
      clocks: '',
      worst: shown,
      set_point: { text: '0.60', unit: 'inWC' },
      dips: [dip],
      contacts: [],
      writes: true,
      watched_s: 60,
      quiet_s: null,
      ...more,
    }) as Schemas['DipsOut']
  const panel = (more = {}) =>
    mount(LiveDips, { props: { dips: given(more), writable: true, busy: false } })
  it('say when, how long, how deep and what moved first', () => {
    expect(panel().findAll('th').map(said)).toContain('Down to, inWC')
    expect(panel().findAll('td').map(said)).toEqual([
      '12',
      '1.26 ± 0.10',
      '0.48',
      'Draft → Flame still: Supply',
    ])
    expect(said(panel())).toContain('Lowest 0.48 inWC, set point 0.60 inWC.')
  })
  it('say that it turned round, how long it must stay quiet, and how far the clocks are trusted', () => {
    const wrapper = panel({ dips: [{ ...dip, reversed: true }], clocks: 'Clocks may lie apart.' })
    expect(said(wrapper.get('.turned'))).toContain('turned round')
    expect(said(wrapper)).toContain('Only 19 min without one')
    expect(said(wrapper)).toContain('Clocks may lie apart.')
  })
  it('show the newest six', () => {
    const many = Array.from({ length: 9 }, (_, i) => ({ ...dip, at_s: i }))
    const rows = panel({ dips: many }).findAll('tbody tr')
    expect(rows).toHaveLength(6)
    expect(said(rows[0]!)).toContain('3 1.26')
  })
  it('are written only where there is something to write', async () => {
    expect(panel({ writes: false }).find('button').exists()).toBe(false)
    const wrapper = panel()
    await wrapper.get('button').trigger('click')
    expect(wrapper.emitted('write')).toHaveLength(1)
  })
  it('say what a contact did', () =>
    expect(said(panel({ contacts: ['The limit opened.'] }).get('.contact'))).toBe(
      'The limit opened.',
    ))
})
