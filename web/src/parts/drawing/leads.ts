/** The nodes that the leads of a meter lie on; "" for one that hangs. */
export type Leads = [red: string, black: string]

/** Where a lead goes when a node is touched: red first, then black, then red again elsewhere. */
export function placed([red, black]: Leads, node: string): Leads {
  if (!red || (red && black)) return [node, '']
  return node === red ? ['', ''] : [red, node]
}

/** A lead moved to a node by hand; the other one stays, unless it lies on the same node. */
export function moved([red, black]: Leads, which: 'red' | 'black', node: string): Leads {
  return which === 'red' ? [node, black === node ? '' : black] : [red === node ? '' : red, node]
}

/** A hanging lead, from the meter up to the node. */
export function curve(from: { x: number; y: number }, to: { x: number; y: number }): string {
  const sag = Math.max(30, Math.abs(from.y - to.y) * 0.55)
  return `M${from.x} ${from.y}C${from.x} ${from.y - sag} ${to.x} ${to.y + sag} ${to.x} ${to.y}`
}
