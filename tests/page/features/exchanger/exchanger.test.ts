import { mount } from '@vue/test-utils'
import { describe, expect, it } from 'vitest'
import type { Schemas } from '@/api/client'
import { deskSpy, onDesk } from '@tests/testing/desk'
import { said } from '@tests/testing/said'
import FindingPicker from '@/features/exchanger/FindingPicker.vue'
import HowLooked from '@/features/exchanger/HowLooked.vue'
import SeenSoFar from '@/features/exchanger/SeenSoFar.vue'

const exchanger = (coverage: Schemas['CoverageOut'][] = []) =>
  ({ coverage, whole: 'exchanger ok 4/4 by ' }) as unknown as Schemas['ExchangerOut']

describe('how it was looked at', () => {
  const how = () =>
    mount(HowLooked, {
      props: {
        methods: ['eye', 'mirror'],
        sizes: ['', '5 mm'],
        surenesses: ['sure', 'likely'],
        method: 'mirror',
        size: '',
        sure: '',
      },
    })
  it('asks method, size and sureness, each with a way to say none', () => {
    const rows = how().findAll('[role=group]')
    expect(rows.map((row) => row.attributes('aria-label'))).toEqual([
      'Looked at by',
      'Size',
      'How sure',
    ])
    expect(said(rows[1]!)).toContain('none')
    expect(said(rows[2]!)).toContain('not said')
  })
  it('gives what is chosen', async () => {
    const panel = how()
    await panel.findAll('[role=group]')[1]!.findAll('button')[1]!.trigger('click')
    expect(panel.emitted('update:size')).toEqual([['5 mm']])
  })
})

describe('what is at the spot', () => {
  const findings = [
    { starter: 'found exchanger cracked', name: 'Heat exchanger: cracked', level: 4 },
    { starter: 'found exchanger sooted', name: 'Heat exchanger: sooted', level: 3 },
  ]
  const picker = () =>
    mount(FindingPicker, { props: { spot: { part: 'cell 3', zone: 'neck' }, findings } })
  it('names the spot and offers what can be there', () => {
    expect(picker().attributes('aria-label')).toBe('What is at cell 3, neck?')
    expect(picker().findAll('.kind')).toHaveLength(2)
  })
  it('places a finding, or nothing', async () => {
    const panel = picker()
    await panel.findAll('.kind')[1]!.trigger('click')
    await panel.findAll('.btn').at(-1)!.trigger('click')
    expect(panel.emitted('place')).toEqual([['found exchanger sooted']])
    expect(panel.emitted('nothing')).toHaveLength(1)
  })
})

describe('what was seen so far', () => {
  const show = (coverage: Schemas['CoverageOut'][] = [], writable = true) => {
    const desk = deskSpy()
    const props = { exchanger: exchanger(coverage), method: 'borescope', writable }
    return { desk, panel: mount(SeenSoFar, { props, ...onDesk(desk) }) }
  }
  it('says when nothing was', () =>
    expect(said(show().panel)).toContain('Nothing has been looked at yet'))
  it('says how much, and what that would have found', () => {
    const { panel } = show([{ says: '3 of 4 parts seen by mirror', finds_pct: 45 }])
    expect(said(panel)).toContain('finds about 45 % of real breaches')
    expect(panel.get('.cover i i').attributes('style')).toContain('45%')
  })
  it('writes all of it by the method in hand, or begins some of it', async () => {
    const { desk, panel } = show()
    const [all, some] = panel.findAll('button')
    await all!.trigger('click')
    await some!.trigger('click')
    expect(desk.write).toHaveBeenCalledWith('exchanger ok 4/4 by borescope')
    expect(desk.begin).toHaveBeenCalledWith('exchanger ok ', 'exchanger')
  })
})
