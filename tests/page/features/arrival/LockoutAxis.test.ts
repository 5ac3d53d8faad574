import { mount } from '@vue/test-utils'
import { describe, expect, it } from 'vitest'
import type { Schemas } from '@/api/client'
import LockoutAxis from '@/features/arrival/LockoutAxis.vue'

const axis: Schemas['AxisOut'] = {
  spans: [
    { start: 0, end: 0.66, runs: 'gas', name: 'Gas alone' },
    { start: 0.66, end: 0.74, runs: 'none', name: 'NEITHER may run' },
    { start: 0.74, end: 1, runs: 'pump', name: 'Heat pump alone' },
  ],
  marks: [
    { at: 0.66, name: 'gas off above', text: '38 °F' },
    { at: 0.74, name: 'heat pump off below', text: '45 °F' },
    { at: 0.7, name: 'outdoors now', text: '41 °F' },
  ],
  ends: ['−22 °F', '68 °F'],
  notes: [
    'Between the two lock-outs neither source may run: no heat, and nothing is broken.',
    'Read on.',
  ],
}

describe('two lock-outs on one axis', () => {
  it('leaves the name away where the span is too narrow for it', () => {
    const spans = mount(LockoutAxis, { props: { axis } }).findAll('.bar span')
    expect(spans.map((s) => s.text())).toEqual(['Gas alone', '', 'Heat pump alone'])
  })
  it('orders the marks so that no line crosses words', () => {
    const marks = mount(LockoutAxis, { props: { axis } }).findAll('.marks span')
    expect(marks.map((m) => m.text().split(' ')[0])).toEqual(['gas', 'outdoors', 'heat'])
    expect(marks.every((m) => m.classes('flip'))).toBe(true)
  })
  it('puts words to the right on the cold side', () => {
    const cold = { ...axis, marks: axis.marks.map((m) => ({ ...m, at: m.at - 0.5 })) }
    const marks = mount(LockoutAxis, { props: { axis: cold } }).findAll('.marks span')
    expect(marks.map((m) => m.text().split(' ')[0])).toEqual(['heat', 'outdoors', 'gas'])
    expect(marks.some((m) => m.classes('flip'))).toBe(false)
  })
  it('marks the note of the danger alone', () =>
    expect(mount(LockoutAxis, { props: { axis } }).findAll('.note')).toHaveLength(1))
  it('draws no bar before both were read', () =>
    expect(
      mount(LockoutAxis, { props: { axis: { ...axis, spans: [] } } })
        .find('.bar')
        .exists(),
    ).toBe(false))
})
