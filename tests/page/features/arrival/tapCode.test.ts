import { describe, expect, it } from 'vitest'
import { beatsOf, coloursOf, digitsOf, type Flash } from '@/features/arrival/tapCode'

const flash = (at: number, lit = 200): Flash => ({ downMs: at, upMs: at + lit })

describe('tapping along with the flashes', () => {
  it('counts one group', () => expect(digitsOf([flash(0), flash(500), flash(1000)])).toBe('3'))
  it('begins a digit after a pause', () =>
    expect(
      digitsOf([flash(0), flash(500), flash(3000), flash(3500), flash(4000), flash(4500)]),
    ).toBe('2 4'))
  it('takes long flashes for the first digit', () =>
    expect(digitsOf([flash(0, 900), flash(1500, 900), flash(3000), flash(3400), flash(3800)])).toBe(
      '2 3',
    ))
  it('counts long ones alone as they come', () =>
    expect(digitsOf([flash(0, 900), flash(1500, 900)])).toBe('2'))
  it('says nothing of nothing', () => expect(digitsOf([])).toBe(''))
})

describe('other lamps', () => {
  it('tells long from short in order', () =>
    expect(
      beatsOf([
        { downMs: 0, upMs: 900 },
        { downMs: 1200, upMs: 1400 },
      ]),
    ).toBe('L S'))
  it('counts runs of a colour', () =>
    expect(coloursOf(['red', 'red', 'amber', 'red'])).toBe('2 red 1 amber 1 red'))
  it('begins with nothing', () => expect([beatsOf([]), coloursOf([])]).toEqual(['', '']))
})
