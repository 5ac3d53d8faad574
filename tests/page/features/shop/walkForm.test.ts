import { describe, expect, it } from 'vitest'
import {
  withHead,
  withMoved,
  withoutStop,
  withProved,
  withStop,
  withWord,
  type WalkDocument,
} from '@/features/shop/walkForm'

const walk: WalkDocument = {
  key: 'maintenance',
  name: 'Maintenance',
  kind: '',
  walk: 'maintenance',
  stops: [
    { key: 'a', part: 'filter', found: ['clean'] },
    { key: 'b', part: 'belt', found: ['ok'] },
    { key: 'c', part: 'limit', proved: true },
  ],
}
const keys = (one: WalkDocument) => one.stops.map((stop) => stop.key).join('')

describe('a walk that is edited', () => {
  it('is kept under the key of its kind and reason', () =>
    expect(withHead(walk, 'kind', 'rooftop').key).toBe('rooftop_maintenance'))
  it('has its stops moved up and down, not beyond its ends', () => {
    expect(keys(withMoved(walk, 2, -1))).toBe('acb')
    expect(keys(withMoved(walk, 0, 1))).toBe('bac')
    expect(keys(withMoved(walk, 0, -1))).toBe('abc')
    expect(keys(withMoved(walk, 2, 1))).toBe('abc')
  })
  it('gains and loses a stop', () => {
    expect(keys(withoutStop(walk, 1))).toBe('ac')
    expect(keys(withStop(walk, { key: 'd', part: 'vent', found: ['ok'] }))).toBe('abcd')
  })
  it('has a word put in and taken out again', () => {
    const more = withWord(walk, 0, 'found', 'dirty')
    expect(more.stops[0]!.found).toEqual(['clean', 'dirty'])
    expect(withWord(more, 0, 'found', 'clean').stops[0]!.found).toEqual(['dirty'])
    expect(withWord(walk, 1, 'did', 'change').stops[1]!.did).toEqual(['change'])
  })
  it('asks for a proof or no more', () => expect(withProved(walk, 2).stops[2]!.proved).toBe(false))
  it('leaves the document that it was made from as it was', () => {
    withWord(walk, 0, 'found', 'dirty')
    withMoved(walk, 0, 1)
    expect(keys(walk)).toBe('abc')
    expect(walk.stops[0]!.found).toEqual(['clean'])
  })
})
