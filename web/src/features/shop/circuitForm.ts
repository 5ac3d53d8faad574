/** A part as it stands in a circuit document; fields that the form does not show are kept as they are. */
export interface PartRow {
  key: string
  name: string
  kind: string
  nodes?: string[]
  family?: string
  ohm?: number
  volts?: number
  closed_when?: string[]
  [other: string]: unknown
}
export interface CircuitDocument {
  key: string
  name: string
  nodes: Record<string, string>
  parts: PartRow[]
  [other: string]: unknown
}

/** Words between commas or blanks: "1, 2" or "!plenum_hot call". */
export const words = (text: string): string[] => text.split(/[\s,]+/).filter(Boolean)

/** A document with one field of one part changed; an emptied field is taken out, not stored as nothing. */
export function withField(
  document: CircuitDocument,
  index: number,
  field: string,
  text: string,
): CircuitDocument {
  const parts = document.parts.map((part, i) => (i === index ? changed(part, field, text) : part))
  return { ...document, parts }
}

function changed(part: PartRow, field: string, text: string): PartRow {
  const next: PartRow = { ...part }
  if (text.trim() === '' && field !== 'name') delete next[field]
  else if (field === 'nodes' || field === 'closed_when') next[field] = words(text)
  else if (field === 'ohm' || field === 'volts')
    next[field] = Number.isFinite(Number(text.replace(',', '.')))
      ? Number(text.replace(',', '.'))
      : undefined
  else next[field] = text
  return next
}

export const withoutPart = (document: CircuitDocument, index: number): CircuitDocument => ({
  ...document,
  parts: document.parts.filter((_, i) => i !== index),
})

/** A document with one more part, with a key that nothing else has. */
export function withPart(document: CircuitDocument): CircuitDocument {
  const taken = new Set(document.parts.map((part) => part.key))
  const key =
    Array.from({ length: taken.size + 1 }, (_, i) => `part_${i + 1}`).find(
      (name) => !taken.has(name),
    ) ?? 'part'
  return { ...document, parts: [...document.parts, { key, name: 'New part', kind: 'thing' }] }
}

/** Nodes from lines like "R = 24 V hot"; a line without a name is a node that is called by its key. */
export function nodesOf(text: string): Record<string, string> {
  const rows = text
    .split('\n')
    .map((line) => line.split('=').map((piece) => piece.trim()))
    .filter(([key]) => key)
  return Object.fromEntries(rows.map(([key, name]) => [key as string, name || (key as string)]))
}

export const nodesText = (nodes: Record<string, string>): string =>
  Object.entries(nodes)
    .map(([key, name]) => `${key} = ${name}`)
    .join('\n')
