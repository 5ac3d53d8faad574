import { describe, expect, it } from 'vitest'
import { curve, moved, placed } from '@/parts/drawing/leads'

describe('leads', () => {
  it('puts red first, then black', () => {
    expect(placed(['', ''], '3')).toEqual(['3', ''])
    expect(placed(['3', ''], '4')).toEqual(['3', '4'])
  })
  it('begins anew once both lie somewhere', () =>
    expect(placed(['3', '4'], '1')).toEqual(['1', '']))
  it('takes a lead off the node it lies on', () => expect(placed(['3', ''], '3')).toEqual(['', '']))
  it('moves one lead and leaves the other', () => {
    expect(moved(['3', '4'], 'black', 'C')).toEqual(['3', 'C'])
    expect(moved(['3', '4'], 'red', '4')).toEqual(['4', ''])
  })
  it('hangs from the node to the meter', () =>
    expect(curve({ x: 0, y: 100 }, { x: 50, y: 0 })).toMatch(/^M0 100C0 .* 50 0$/))
})
