import { mount } from '@vue/test-utils'
import { describe, expect, it } from 'vitest'
import type { Schemas } from '@/api/client'
import { said } from '@tests/testing/said'
import RungDrawing from '@/parts/drawing/RungDrawing.vue'

const volts = (text: string) => ({ text, unit: 'V' })
const node = (key: string, more = {}) => ({
  key,
  name: `node ${key}`,
  expected: volts('25.9'),
  read: null,
  odd: false,
  wires: [],
  ...more,
})
const part = (key: string, kind: string, more = {}) => ({
  key,
  name: key,
  kind,
  closed: true,
  expected: volts('0.0'),
  read: null,
  state: 'none',
  ...more,
})
const rung = (more = {}) =>
  ({
    load: 'valve',
    name: 'Gas valve',
    nodes: [
      node('R'),
      node('1', { read: volts('25.8') }),
      node('C', { odd: true, wires: [], read: volts('12.0') }),
    ],
    parts: [part('limit', 'switch', { closed: false }), part('valve', 'load')],
    ...more,
  }) as unknown as Schemas['RungOut']
const drawn = (leads: [string, string] = ['', '']) =>
  mount(RungDrawing, { props: { rung: rung(), leads } })

describe('a rung', () => {
  it('has its nodes and the parts between them in order', () =>
    expect(
      drawn()
        .findAll('li')
        .map((li) => li.classes()[0]),
    ).toEqual(['node', 'part', 'node', 'part', 'node']))
  it('shows what a sound circuit shows, and what was read', () => {
    const nodes = drawn().findAll('.node')
    expect(said(nodes[0]!)).toContain('25.9 V')
    expect(said(nodes[1]!.get('b'))).toBe('25.8 V')
    expect(nodes[2]!.classes()).toContain('odd')
  })
  it('shows a switch open or shut, a load as a box', () => {
    const [limit, valve] = drawn().findAll('.part')
    expect(limit!.find('.contact').exists()).toBe(true)
    expect(limit!.classes()).not.toContain('shut')
    expect(valve!.find('.box').exists()).toBe(true)
  })
  it('shows which leads lie where', () => {
    const nodes = drawn(['R', 'C']).findAll('.node')
    expect(nodes.map((n) => [n.classes().includes('red'), n.classes().includes('black')])).toEqual([
      [true, false],
      [false, false],
      [false, true],
    ])
  })
  it('gives the node that is touched, and both ends of a part', async () => {
    const panel = drawn()
    await panel.get('[data-node="1"]').trigger('click')
    await panel.findAll('.name')[1]!.trigger('click')
    expect(panel.emitted('node')).toEqual([['1']])
    expect(panel.emitted('part')).toEqual([['valve', '1', 'C']])
    expect(panel.findAll('.name')[1]!.attributes('title')).toBe('Volts across: v 1 C')
  })
})
