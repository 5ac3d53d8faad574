/** A station as it stands in a kind's document; fields that the form does not show are kept as they are. */
export interface StationRow {
  key: string
  name: string
  quantity?: string
  stages?: string
  caution?: string
  [other: string]: unknown
}
export interface PathDocument {
  key: string
  name: string
  direction: string
  hint: string
  stations: StationRow[]
}
export interface KindDocument {
  key: string
  name: string
  paths: PathDocument[]
  must_show: Record<string, string[]>
  [other: string]: unknown
}

const withStations = (
  document: KindDocument,
  path: number,
  change: (rows: StationRow[]) => StationRow[],
): KindDocument => ({
  ...document,
  paths: document.paths.map((p, i) => (i === path ? { ...p, stations: change(p.stations) } : p)),
})

/** The document with one field of a station changed; an emptied field is taken out. */
export const withStationField = (
  document: KindDocument,
  path: number,
  index: number,
  field: string,
  text: string,
): KindDocument =>
  withStations(document, path, (rows) =>
    rows.map((row, i) => {
      if (i !== index) return row
      const next: StationRow = { ...row, [field]: text }
      if (!text && field !== 'key' && field !== 'name') delete next[field]
      return next
    }),
  )

export const withoutStation = (document: KindDocument, path: number, index: number): KindDocument =>
  withStations(document, path, (rows) => rows.filter((_, i) => i !== index))

/** The document with a station moved up by one; the first stays where it is. */
export const withStationUp = (document: KindDocument, path: number, index: number): KindDocument =>
  withStations(document, path, (rows) =>
    index === 0
      ? rows
      : [...rows.slice(0, index - 1), rows[index]!, rows[index - 1]!, ...rows.slice(index + 1)],
  )

/** The document with one more station, with a key that nothing else has. */
export function withStation(document: KindDocument, path: number): KindDocument {
  const taken = new Set(document.paths.flatMap((p) => p.stations.map((row) => row.key)))
  const key =
    Array.from({ length: taken.size + 1 }, (_, i) => `station_${i + 1}`).find(
      (name) => !taken.has(name),
    ) ?? 'station'
  return withStations(document, path, (rows) => [...rows, { key, name: 'New station' }])
}

/** The document with a proof asked for, or no longer, at a reason for a visit. */
export function withProof(document: KindDocument, reason: string, proof: string): KindDocument {
  const now = document.must_show[reason] ?? []
  const next = now.includes(proof) ? now.filter((name) => name !== proof) : [...now, proof]
  return { ...document, must_show: { ...document.must_show, [reason]: next } }
}
