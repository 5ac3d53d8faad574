export interface Box {
  left: number
  right: number
  top: number
  bottom: number
  middle: number
}

const GAP = 8 // half the gap between two rows of plates
const ROUND = 6

/**
 * The dashed line from a station to the switch that feels it. It leaves at the station's right, runs
 * along the gap above its row when other columns lie between, and enters at the switch's left.
 */
export function tiePath(from: Box, to: Box, lane: number, adjacent: boolean): string {
  const last = to.left - 12 - 7 * lane
  const start = { x: from.right, y: from.middle + 8 * (lane - 1) }
  const points = adjacent
    ? [start, { x: last, y: start.y }, { x: last, y: to.middle }, { x: to.left, y: to.middle }]
    : [
        start,
        { x: from.right + 8 + 6 * lane, y: start.y },
        { x: from.right + 8 + 6 * lane, y: from.top - GAP },
        { x: last, y: from.top - GAP },
        { x: last, y: to.middle },
        { x: to.left, y: to.middle },
      ]
  return rounded(points)
}

/** The pipe that joins a path running down to the next running up, under both. */
export function joinPath(
  left: number,
  right: number,
  from: number,
  to: number,
  bottom: number,
): string {
  return rounded([
    { x: left, y: from },
    { x: left, y: bottom },
    { x: right, y: bottom },
    { x: right, y: to },
  ])
}

interface Point {
  x: number
  y: number
}

function rounded(points: Point[]): string {
  return points
    .map((point, i) => {
      const before = points[i - 1],
        after = points[i + 1]
      if (!before) return `M${point.x} ${point.y}`
      if (!after) return `L${point.x} ${point.y}`
      const [a, b] = [toward(point, before), toward(point, after)]
      return `L${a.x} ${a.y}Q${point.x} ${point.y} ${b.x} ${b.y}`
    })
    .join('')
}

function toward(from: Point, to: Point): Point {
  const length = Math.hypot(to.x - from.x, to.y - from.y) || 1
  const step = Math.min(ROUND, length / 2)
  return {
    x: from.x + ((to.x - from.x) / length) * step,
    y: from.y + ((to.y - from.y) / length) * step,
  }
}
