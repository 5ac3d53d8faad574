import { describe, expect, it } from 'vitest'
import type { Schemas } from '@/api/client'
import { beginning, changed } from '@/features/cards/values'

const field = (key: string, sort = 'text'): Schemas['FieldOut'] => ({
  key,
  label: key,
  sort,
  required: false,
  most: 120,
  unit: '',
  hint: '',
  choices: [],
})
const fields = [
  field('name'),
  field('year', 'whole'),
  field('fits', 'choices'),
  field('site', 'site'),
]

describe('what a form begins with and what it sends', () => {
  it('begins with what the card says, and with nothing where it says nothing', () => {
    expect(beginning(fields, { name: 'Weir House', year: null, fits: ['a'] })).toEqual({
      name: 'Weir House',
      year: '',
      fits: ['a'],
      site: '',
    })
  })

  it('sends what was touched and nothing beside it', () => {
    const before = beginning(fields, { name: 'Weir House', year: 2010, fits: ['a'], site: 3 })
    expect(changed(before, { ...before })).toEqual({})
    expect(changed(before, { ...before, year: '2010' })).toEqual({})
    expect(changed(before, { ...before, name: '', fits: ['a', 'b'] })).toEqual({
      name: '',
      fits: ['a', 'b'],
    })
  })
})
