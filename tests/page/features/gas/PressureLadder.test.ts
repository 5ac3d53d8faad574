import { mount } from '@vue/test-utils'
import { describe, expect, it } from 'vitest'
import type { Schemas } from '@/api/client'
import PressureLadder from '@/features/gas/PressureLadder.vue'

const rung = (more: Partial<Schemas['LadderRung']>): Schemas['LadderRung'] => ({
  station: 'manifold',
  name: 'Manifold',
  shown: null,
  limit: '',
  state: 'none',
  value: null,
  found: null,
  low: null,
  high: null,
  starter: 'mp ',
  ...more,
})

describe('the pressure ladder', () => {
  it('shows what was not read as such', () => {
    const wrapper = mount(PressureLadder, { props: { rungs: [rung({})], writable: true } })
    expect(wrapper.text()).toContain('not read')
    expect(wrapper.find('.value').exists()).toBe(false)
  })
  it('lays band, value and the value found on one scale', () => {
    const wrapper = mount(PressureLadder, {
      props: {
        rungs: [
          rung({
            value: 0.3,
            found: 0.4,
            low: 0.25,
            high: 0.35,
            state: 'in',
            shown: { text: '3.50', unit: 'inWC' },
          }),
        ],
        writable: true,
      },
    })
    expect(wrapper.find('.value').attributes('style')).toContain('bottom: 30%')
    expect(wrapper.find('.found').attributes('style')).toContain('bottom: 40%')
    expect(wrapper.find('.band').attributes('style')).toMatch(
      /bottom: 25%; height: 9\.9+\d*%|bottom: 25%; height: 10%/,
    )
  })
  it('draws a limit with one bound from the ground up', () => {
    const style = mount(PressureLadder, { props: { rungs: [rung({ high: 0.8 })], writable: true } })
      .find('.band')
      .attributes('style')
    expect(style).toContain('bottom: 0%')
    expect(style).toContain('height: 80%')
  })
  it('begins a line when it is touched, and only where it may be written', async () => {
    const wrapper = mount(PressureLadder, {
      props: { rungs: [rung({ starter: 'high mp ', station: 'manifold_high' })], writable: true },
    })
    await wrapper.find('button').trigger('click')
    expect(wrapper.emitted('begin')).toEqual([['high mp ', 'manifold_high']])
    await wrapper.setProps({ writable: false })
    expect(wrapper.find('button').attributes('disabled')).toBeDefined()
  })
})
