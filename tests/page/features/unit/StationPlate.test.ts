import { mount } from '@vue/test-utils'
import { expect, it } from 'vitest'
import type { Schemas } from '@/api/client'
import StationDrawer from '@/features/unit/StationDrawer.vue'
import StationPlate from '@/parts/drawing/StationPlate.vue'
import { said } from '@tests/testing/said'

const station: Schemas['StationOut'] = {
  key: 'manifold',
  name: 'Manifold',
  state: 'in',
  value: { text: '3.50', unit: 'inWC' },
  side: 'most 3.67',
  words: '',
  scale: { band_from: 0.3, band_to: 0.7, value: 0.5, found: 0.9 },
  jumpered: false,
  missing: ['flue, low fire'],
  starter: 'mp ',
  caution: 'Cover on.',
  why: [],
  readings: [
    {
      quantity: 'manifold_pa',
      name: 'Manifold',
      stage: 'only',
      shown: { text: '3.50', unit: 'inWC' },
      verdict: 'in',
      phase: 'left',
      found: { text: '3.90', unit: 'inWC' },
      limit: 'most 3.67 inWC',
      source: 'data plate',
      scale: null,
    },
  ],
}
const plate = (more: Partial<Schemas['StationOut']>) =>
  mount(StationPlate, { props: { station: { ...station, ...more }, path: 'gas', chosen: false } })

it('shows name, value with unit, limit and both marks', () => {
  const wrapper = plate({})
  for (const words of ['Manifold', '3.50', 'inWC', 'most 3.67'])
    expect(wrapper.text()).toContain(words)
  expect(wrapper.find('i.value').attributes('style')).toContain('50%')
  expect(wrapper.find('i.found').attributes('style')).toContain('90%')
})
it('shows words alone where nothing was read', () => {
  const wrapper = plate({ value: null, scale: null, words: 'not read yet', state: 'none' })
  expect(said(wrapper)).toBe('Manifold not read yet')
})
it('warns of a jumper', () =>
  expect(plate({ words: 'JUMPERED since 10:41', jumpered: true }).find('.alarm').exists()).toBe(
    true,
  ))
it('can be picked', async () => {
  const wrapper = plate({})
  await wrapper.trigger('click')
  expect(wrapper.emitted('pick')).toHaveLength(1)
})

const earlier = [
  {
    id: 1,
    day: '2025-11-19',
    reason: 'Maintenance',
    technician: 'T',
    level: 1,
    title: 'Leave running',
    words: '',
    advice: [],
    readings: ['Manifold 3.4 inWC', 'Rise 50 °F'],
  },
]
const drawer = (writable: boolean) =>
  mount(StationDrawer, { props: { station, earlier, writable } })

it('opens with its caution, what is missing, found and left, whose limit, and what it read before', () => {
  const text = drawer(true).text()
  for (const words of [
    'Mind: Cover on.',
    'Still to show: flue, low fire',
    'as left, found 3.90 inWC',
    'data plate',
    '19 Nov 2025',
    'Manifold 3.4 inWC',
  ])
    expect(text).toContain(words)
  expect(text).not.toContain('Rise 50')
})
it('begins a line here, for those who may write', async () => {
  const wrapper = drawer(true)
  await wrapper.find('button').trigger('click')
  expect(wrapper.emitted('begin')).toEqual([['mp ']])
  expect(drawer(false).find('button').exists()).toBe(false)
})
