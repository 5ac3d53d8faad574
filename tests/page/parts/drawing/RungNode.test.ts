import { mount } from '@vue/test-utils'
import { describe, expect, it } from 'vitest'
import type { Schemas } from '@/api/client'
import RungNode from '@/parts/drawing/RungNode.vue'
import WireMark from '@/parts/drawing/WireMark.vue'

const node = (more: Partial<Schemas['NodeOut']> = {}): Schemas['NodeOut'] => ({
  key: '4',
  name: 'after the pressure switch (violet)',
  expected: { text: '25.5', unit: 'V' },
  read: null,
  odd: false,
  wires: ['violet'],
  ...more,
})

describe('a node of a rung', () => {
  it('says its name, what is expected, and what was read', () => {
    const drawn = mount(RungNode, {
      props: { node: node({ read: { text: '17.2', unit: 'V' }, odd: true }), lead: 'red' },
    })
    expect(drawn.get('button').attributes('aria-label')).toContain('violet')
    for (const said of ['25.5 V', '17.2']) expect(drawn.text()).toContain(said)
    expect(drawn.classes()).toEqual(expect.arrayContaining(['odd', 'red']))
  })

  it('is touched to lay a lead on it', async () => {
    const drawn = mount(RungNode, { props: { node: node(), lead: '' } })
    await drawn.get('button').trigger('click')
    expect(drawn.emitted('touch')).toHaveLength(1)
  })
})

describe('the colour of a wire', () => {
  const style = (wires: string[]) =>
    mount(WireMark, { props: { wires } }).find('.wire').attributes('style') ?? ''

  it('is drawn with its stripe', () => {
    expect(style(['white', 'blue'])).toContain('--own: var(--wire-white)')
    expect(style(['white', 'blue'])).toContain('--stripe: var(--wire-blue)')
  })

  it('has the same stripe as itself where it has none', () => {
    expect(style(['pink'])).toContain('--stripe: var(--wire-pink)')
  })

  it('is not drawn where none is known', () => {
    expect(
      mount(WireMark, { props: { wires: [] } })
        .find('.wire')
        .exists(),
    ).toBe(false)
  })
})
