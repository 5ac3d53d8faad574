import { mount } from '@vue/test-utils'
import { expect, it } from 'vitest'
import { levelState } from '@/ui/levels'
import StateMark from '@/ui/StateMark.vue'

it('tells state by shape first', () => {
  const shapes = ['in', 'near', 'out', 'none', 'noted'].map((state) =>
    mount(StateMark, { props: { state } }).html(),
  )
  expect(new Set(shapes).size).toBe(5)
  expect(shapes[3]).toContain('stroke-dasharray')
})
it.each([
  [1, 'in'],
  [2, 'near'],
  [3, 'out'],
  [4, 'out'],
  [0, 'none'],
])('level %i is %s', (level, state) => expect(levelState(level)).toBe(state))
