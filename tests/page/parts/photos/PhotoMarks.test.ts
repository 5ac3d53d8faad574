import { mount, type VueWrapper } from '@vue/test-utils'
import { describe, expect, it, vi } from 'vitest'
import PhotoMarks from '@/parts/photos/PhotoMarks.vue'

const photo = {
  id: 'a',
  caption: 'Cell 3',
  station: 'exchanger',
  url: '/p',
  small: '/s',
  marks: [{ x: 0.1, y: 0.1, to_x: 0.5, to_y: 0.5, text: 'crack' }],
}
/** The picture is there: a browser would have read its size. */
const arrives = (board: VueWrapper) => {
  const image = board.find('img')
  for (const [side, pixels] of [
    ['naturalWidth', 640],
    ['naturalHeight', 320],
  ] as const) {
    Object.defineProperty(image.element, side, { value: pixels })
  }
  return image.trigger('load')
}
const open = async (writable = true) => {
  const board = mount(PhotoMarks, { props: { photo, writable } })
  await arrives(board)
  const svg = board.find('svg')
  svg.element.getBoundingClientRect = () =>
    ({ left: 0, top: 0, width: 200, height: 100 }) as DOMRect
  ;(svg.element as unknown as { setPointerCapture: () => void }).setPointerCapture = vi.fn()
  return { board, svg }
}

describe('marks on a photo', () => {
  it('are drawn once the photo is there, and stand where they stand on it', async () => {
    const board = mount(PhotoMarks, { props: { photo, writable: true } })
    expect(board.find('svg').exists()).toBe(false)
    await arrives(board)
    expect(board.find('svg').attributes('viewBox')).toBe('0 0 1000 500')
    expect(board.find('circle').attributes('cy')).toBe('250')
  })
  it('are drawn from where the words stand to what they show', async () => {
    const { board, svg } = await open()
    await svg.trigger('pointerdown', { clientX: 20, clientY: 10, pointerId: 1 })
    await svg.trigger('pointermove', { clientX: 120, clientY: 60, pointerId: 1 })
    await svg.trigger('pointerup')
    await board.find('.strong').trigger('click')
    expect(board.emitted('keep')).toEqual([
      [[photo.marks[0], { x: 0.1, y: 0.1, to_x: 0.6, to_y: 0.6, text: '' }]],
    ])
  })
  it('of no length are a slip, and a slip past the edge ends at the edge', async () => {
    const { board, svg } = await open()
    await svg.trigger('pointerdown', { clientX: 20, clientY: 10, pointerId: 1 })
    await svg.trigger('pointerup')
    expect(board.findAll('g')).toHaveLength(1)
    await svg.trigger('pointerdown', { clientX: 20, clientY: 10, pointerId: 1 })
    await svg.trigger('pointermove', { clientX: 900, clientY: -50, pointerId: 1 })
    await svg.trigger('pointerup')
    await board.find('.strong').trigger('click')
    expect(board.emitted('keep')?.[0]?.[0]).toContainEqual({
      x: 0.1,
      y: 0.1,
      to_x: 1,
      to_y: 0,
      text: '',
    })
  })
  it('are taken away one by one, and the photo of the page keeps its own until they are kept', async () => {
    const { board } = await open()
    await board.find('.row button').trigger('click')
    expect(board.findAll('g')).toHaveLength(0)
    expect(photo.marks).toHaveLength(1)
  })
  it('are only looked at on a closed visit', async () => {
    const { board, svg } = await open(false)
    await svg.trigger('pointerdown', { clientX: 20, clientY: 10, pointerId: 1 })
    expect(board.findAll('g')).toHaveLength(1)
    expect(board.find('.strong').exists()).toBe(false)
  })
})
