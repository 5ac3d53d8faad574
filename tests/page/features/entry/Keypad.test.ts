import { mount } from '@vue/test-utils'
import { expect, it } from 'vitest'
import Keypad from '@/features/entry/Keypad.vue'

const pad = (likely: string[], twoStage = false) =>
  mount(Keypad, { props: { likely, twoStage, letters: false, actions: [] } })

it('presses digits, point and sign', async () => {
  const wrapper = pad([])
  for (const button of wrapper.findAll('.digits button')) await button.trigger('click')
  expect(wrapper.emitted('press')?.flat().join('')).toBe('789456123.0-')
})
it('offers what is likely next, once each and not too many', () => {
  const wrapper = pad(['room ', 'room ', ...'abcdefghijk'.split('')])
  expect(wrapper.findAll('.likely button')).toHaveLength(8 + 3)
  expect(wrapper.find('.likely button').text()).toBe('room')
})
it('begins with a likely word', async () => {
  const wrapper = pad(['draft '])
  await wrapper.find('.likely button').trigger('click')
  expect(wrapper.emitted('begin')).toEqual([['draft ']])
})
it('has stages for units with two', () => {
  expect(pad([], true).find('.words').text()).toContain('hi')
  expect(pad([], false).find('.words').text()).not.toContain('hi')
})
it('deletes, spaces, spells, closes and writes', async () => {
  const wrapper = pad([])
  for (const button of wrapper.findAll('.ends button')) await button.trigger('click')
  expect(wrapper.emitted('press')?.flat()).toEqual(['back', ' ', 'letters', 'done', 'enter'])
})
it.each([
  [0, 'done'],
  [1, 'found'],
  [2, 'jumpers'],
])('opens list %i', async (index, name) => {
  const wrapper = pad([])
  await wrapper.findAll('.likely button')[index]?.trigger('click')
  expect(wrapper.emitted('list')).toEqual([[name]])
})
