import { describe, expect, it } from 'vitest'
import { clockLine, secondsOf, turnsOf } from '@/features/gas/turns'

describe('clocking a meter', () => {
  it('counts nothing before the mark passed twice', () =>
    expect([turnsOf([]), turnsOf([500]), secondsOf([500])]).toEqual([0, 0, 0]))
  it('counts turns between the first pass and the last', () =>
    expect([turnsOf([0, 30_000, 60_500]), secondsOf([0, 30_000, 60_500])]).toEqual([2, 60.5]))
  it('writes dial, turns and seconds', () =>
    expect(clockLine('2', 'ft3', [1000, 31_200])).toBe('clock 2 ft3 1 30.2'))
})
