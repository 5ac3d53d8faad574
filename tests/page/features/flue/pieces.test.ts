import { mount } from '@vue/test-utils'
import { describe, expect, it } from 'vitest'
import type { Schemas } from '@/api/client'
import { said } from '@tests/testing/said'
import FlueSays from '@/features/flue/FlueSays.vue'
import LogMeans from '@/features/flue/LogMeans.vue'

const mean = (name: string, text: string, unit: string): Schemas['MeanOut'] => ({
  quantity: name,
  name,
  mean: { text, unit },
  scatter: '±0.1',
})

describe('the means of a log', () => {
  const panel = (more = {}) =>
    mount(LogMeans, {
      props: {
        means: [mean('Flue O₂', '7.4', '%'), mean('Flue CO', '22', 'ppm')],
        target: 'as left, high fire',
        writable: true,
        busy: false,
        ...more,
      },
    })
  it('stand with unit and scatter', () => expect(said(panel())).toContain('Flue O₂ 7.4 % ±0.1'))
  it('say where they are written', async () => {
    const means = panel()
    expect(said(means.get('.btn'))).toBe('Write on the tape, as left, high fire')
    await means.get('.btn').trigger('click')
    expect(means.emitted('write')).toHaveLength(1)
  })
  it('are not written while a stretch is missing, nor on a closed visit', () => {
    expect(panel({ busy: true }).get('.btn').attributes('disabled')).toBeDefined()
    expect(panel({ writable: false }).find('.btn').exists()).toBe(false)
  })
})

it('the flue says what its numbers say, and what they cannot', () => {
  const flue = { says: ['12 ppm CO air-free.'], cannot_say: ['No proof of a whole exchanger.'] }
  const [says, cannot] = mount(FlueSays, { props: { flue: flue as Schemas['FlueOut'] } }).findAll(
    'article',
  )
  expect(said(says!)).toContain('12 ppm CO air-free.')
  expect(said(cannot!)).toContain('No proof of a whole exchanger.')
})
