import type { Schemas } from '@/api/client'

/** What a shop lets choose from, for tests of its forms. */
export const choices = {
  unit_kinds: [{ key: 'rooftop', name: 'Rooftop unit' }],
  circuits: [{ key: 'c1', name: 'Circuit one' }],
  fuels: [{ key: 'NG_H', name: 'natural gas' }],
  quantities: [
    { key: 'manifold_pa', name: 'Manifold' },
    { key: 'draft_pa', name: 'Draft' },
  ],
  reasons: [
    { key: 'every', name: 'Every visit' },
    { key: 'no_heat', name: 'No heat' },
  ],
  proofs: [
    { key: 'cycles', name: 'cycles' },
    { key: 'leak', name: 'leak' },
  ],
} as unknown as Schemas['Choices']
