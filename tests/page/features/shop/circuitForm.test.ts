import { describe, expect, it } from 'vitest'
import {
  nodesOf,
  nodesText,
  withField,
  withoutPart,
  withPart,
  words,
  type CircuitDocument,
} from '@/features/shop/circuitForm'

const document: CircuitDocument = {
  key: 'mine',
  name: 'Mine',
  nodes: { R: 'hot', C: 'common' },
  parts: [{ key: 'limit', name: 'Limit', kind: 'switch', nodes: ['1', '2'], latches: true }],
}

describe('the list form of a circuit', () => {
  it('reads words with commas or blanks', () => expect(words(' 1, 2  3')).toEqual(['1', '2', '3']))
  it('changes one field and keeps the rest, also what it does not show', () => {
    const part = withField(document, 0, 'nodes', '3 4').parts[0]!
    expect(part.nodes).toEqual(['3', '4'])
    expect(part['latches']).toBe(true)
    expect(document.parts[0]!.nodes).toEqual(['1', '2'])
  })
  it('takes numbers with point or comma', () =>
    expect(withField(document, 0, 'ohm', '1,5').parts[0]!.ohm).toBe(1.5))
  it('takes an emptied field out', () =>
    expect('nodes' in withField(document, 0, 'nodes', ' ').parts[0]!).toBe(false))
  it('adds and removes parts', () => {
    expect(withPart(document).parts.map((p) => p.key)).toEqual(['limit', 'part_1'])
    expect(withoutPart(document, 0).parts).toEqual([])
  })
  it('writes nodes as lines and reads them back', () =>
    expect(nodesOf(nodesText(document.nodes))).toEqual(document.nodes))
  it('calls a nameless node by its key', () =>
    expect(nodesOf('R\n\nC = common')).toEqual({ R: 'R', C: 'common' }))
})
