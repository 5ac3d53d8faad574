import { useResizeObserver } from '@vueuse/core'
import { nextTick, onMounted, ref, watch, type Ref } from 'vue'
import type { Schemas } from '@/api/client'
import { joinPath, tiePath, type Box } from './ties'

const BELOW_PX = 14 // the join of gas and fire runs so far under the lowest plate
const BESIDE_PX = 80 // plates nearer than that have no room for a tie between them

export interface Drawn {
  ties: string[]
  join: string
  spines: { d: string; path: string }[]
  width: number
  height: number
}

/** The lines between the plates of a board, drawn anew when the board or the page changes. */
export function useTies(
  board: Ref<HTMLElement | null>,
  page: () => Schemas['VisitPage'],
): Ref<Drawn> {
  const drawn = ref<Drawn>({ ties: [], join: '', spines: [], width: 0, height: 0 })
  const draw = () => {
    if (board.value) drawn.value = drawnOn(board.value, page())
  }
  useResizeObserver(board, draw)
  onMounted(() => void document.fonts.ready.then(draw))
  watch(page, () => void nextTick(draw))
  return drawn
}

function drawnOn(board: HTMLElement, page: Schemas['VisitPage']): Drawn {
  const origin = board.getBoundingClientRect()
  const box = (key: string) => boxOf(board, key, origin)
  const columns = page.paths.map((path) => ({
    path: path.key,
    boxes: path.stations.map((s) => box(s.key)).filter((b): b is Box => b !== null),
  }))
  const ties = page.ties.flatMap(({ device, feels }, lane) => {
    const [from, to] = [box(feels), box(device)]
    return from && to ? [tiePath(from, to, lane, to.left - from.right < BESIDE_PX)] : []
  })
  return {
    ties,
    join: joinOf(columns[0]?.boxes.at(-1), columns[1]?.boxes.at(-1)),
    spines: columns.map(({ path, boxes }) => ({ path, d: spineOf(boxes) })),
    width: board.scrollWidth,
    height: board.scrollHeight,
  }
}

function boxOf(board: HTMLElement, key: string, origin: DOMRect): Box | null {
  const rect = board.querySelector(`[data-station="${key}"]`)?.getBoundingClientRect()
  if (!rect) return null
  return {
    left: rect.left - origin.left,
    right: rect.right - origin.left,
    top: rect.top - origin.top,
    bottom: rect.bottom - origin.top,
    middle: (rect.top + rect.bottom) / 2 - origin.top,
  }
}

const centre = (box: Box) => (box.left + box.right) / 2

function spineOf(boxes: Box[]): string {
  return boxes
    .slice(1)
    .map((box, i) => `M${centre(box)} ${(boxes[i] as Box).bottom}V${box.top}`)
    .join('')
}

/** The gas joins the fire under the lowest plates of both. */
function joinOf(gas: Box | undefined, fire: Box | undefined): string {
  if (!gas || !fire) return ''
  const below = Math.max(gas.bottom, fire.bottom) + BELOW_PX
  return joinPath(centre(gas), centre(fire), gas.bottom, fire.bottom, below)
}
