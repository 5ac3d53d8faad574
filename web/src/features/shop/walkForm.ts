/** A stop as it stands in a walk's document. */
export interface StopDocument {
  key: string
  part: string
  read?: string[]
  may_read?: string[]
  found?: string[]
  did?: string[]
  proved?: boolean
  check?: string
}
export interface WalkDocument {
  key: string
  name: string
  kind: string
  walk: string
  stops: StopDocument[]
  [other: string]: unknown
}
export type StopList = 'read' | 'may_read' | 'found' | 'did'

const withStops = (walk: WalkDocument, stops: StopDocument[]): WalkDocument => ({ ...walk, stops })

/** The walk for another kind of unit or another reason; its key follows, for there is one of each. */
export function withHead(walk: WalkDocument, field: 'kind' | 'walk', value: string): WalkDocument {
  const changed = { ...walk, [field]: value }
  return { ...changed, key: `${changed.kind}_${changed.walk}` }
}

/** The walk with one stop moved by `steps`; at an end it stays. */
export function withMoved(walk: WalkDocument, index: number, steps: number): WalkDocument {
  const to = index + steps
  const moved = walk.stops[index]
  if (!moved || to < 0 || to >= walk.stops.length) return walk
  const others = walk.stops.filter((_, at) => at !== index)
  return withStops(walk, [...others.slice(0, to), moved, ...others.slice(to)])
}

export const withoutStop = (walk: WalkDocument, index: number): WalkDocument =>
  withStops(
    walk,
    walk.stops.filter((_, at) => at !== index),
  )

export const withStop = (walk: WalkDocument, stop: StopDocument): WalkDocument =>
  withStops(walk, [...walk.stops, stop])

const changed = (
  walk: WalkDocument,
  index: number,
  change: (stop: StopDocument) => StopDocument,
): WalkDocument =>
  withStops(
    walk,
    walk.stops.map((stop, at) => (at === index ? change(stop) : stop)),
  )

/** The walk with a word of one of a stop's lists put in, or taken out where it stood. */
export const withWord = (
  walk: WalkDocument,
  index: number,
  list: StopList,
  word: string,
): WalkDocument =>
  changed(walk, index, (stop) => {
    const words = stop[list] ?? []
    const next = words.includes(word) ? words.filter((one) => one !== word) : [...words, word]
    return { ...stop, [list]: next }
  })

export const withProved = (walk: WalkDocument, index: number): WalkDocument =>
  changed(walk, index, (stop) => ({ ...stop, proved: !stop.proved }))
