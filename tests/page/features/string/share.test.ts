import { expect, it } from 'vitest'
import { percent } from '@/features/string/share'

it.each([
  [1, '> 99 %'],
  [0.996, '> 99 %'],
  [0.5, '50 %'],
  [0.014, '1 %'],
  [0.009, '< 1 %'],
  [0, '< 1 %'],
])('%f is %s', (share, said) => expect(percent(share)).toBe(said))
