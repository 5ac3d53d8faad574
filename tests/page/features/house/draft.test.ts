import { describe, expect, it } from 'vitest'
import type { Schemas } from '@/api/client'
import { changesOf, draftOf } from '@/features/house/draft'

const house: Schemas['HouseRulesOut'] = {
  name: 'ours',
  writable: true,
  presets: [],
  questions: [
    {
      key: 'jumpers',
      name: 'Jumpers',
      chosen: 'call_only',
      answers: [
        { key: 'call_only', reason: 'a.' },
        { key: 'none', reason: 'b.' },
      ],
    },
  ],
  limits: [{ key: 'co', name: 'CO', value: 400, least: 50, most: 2000, unit: 'ppm' }],
}

describe('the form of the house rules', () => {
  it('begins as the firm has them, with nothing changed', () => {
    expect(changesOf(house, draftOf(house))).toEqual({})
  })
  it('names what differs, each by its key', () => {
    const draft = {
      ...draftOf(house),
      answers: { jumpers: 'none' },
      limits: { co: 200 },
      name: 'strict',
    }
    expect(changesOf(house, draft)).toEqual({ jumpers: 'none', co: 200, name: 'strict' })
  })
})
