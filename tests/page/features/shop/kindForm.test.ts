import { describe, expect, it } from 'vitest'
import {
  withoutStation,
  withProof,
  withStation,
  withStationField,
  withStationUp,
  type KindDocument,
} from '@/features/shop/kindForm'

const kind: KindDocument = {
  key: 'mine',
  name: 'Mine',
  must_show: { every: ['room_co'] },
  paths: [
    {
      key: 'gas',
      name: 'Gas',
      direction: 'down',
      hint: '',
      stations: [
        { key: 'a', name: 'A', caution: 'Hot', between: { only: ['1', '2'] } },
        { key: 'b', name: 'B' },
      ],
    },
  ],
}
const names = (document: KindDocument) => document.paths[0]!.stations.map((s) => s.key)

describe('the list form of a kind', () => {
  it('changes one field and keeps what it does not show', () => {
    const row = withStationField(kind, 0, 0, 'name', 'Aa').paths[0]!.stations[0]!
    expect(row.name).toBe('Aa')
    expect(row['between']).toEqual({ only: ['1', '2'] })
    expect(kind.paths[0]!.stations[0]!.name).toBe('A')
  })
  it('takes an emptied field out, but never the key', () => {
    expect('caution' in withStationField(kind, 0, 0, 'caution', '').paths[0]!.stations[0]!).toBe(
      false,
    )
    expect(withStationField(kind, 0, 0, 'key', '').paths[0]!.stations[0]!.key).toBe('')
  })
  it('moves, adds and removes', () => {
    expect(names(withStationUp(kind, 0, 1))).toEqual(['b', 'a'])
    expect(names(withStationUp(kind, 0, 0))).toEqual(['a', 'b'])
    expect(names(withStation(kind, 0))).toEqual(['a', 'b', 'station_1'])
    expect(names(withoutStation(kind, 0, 0))).toEqual(['b'])
  })
  it('asks for a proof and no longer', () => {
    expect(withProof(kind, 'recheck', 'leak_check').must_show).toEqual({
      every: ['room_co'],
      recheck: ['leak_check'],
    })
    expect(withProof(kind, 'every', 'room_co').must_show['every']).toEqual([])
  })
})
