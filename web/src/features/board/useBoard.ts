import { useQuery, useQueryClient } from '@tanstack/vue-query'
import { computed, toValue, type ComputedRef, type MaybeRefOrGetter, type Ref } from 'vue'
import type { ApiError, Schemas } from '@/api/client'
import { cancelVisit, changePlan, firmKeys, getBoard } from '@/api/firm'
import { useAsyncAction } from '@/api/useAsyncAction'
import { byCell, cellKey } from './cells'

export type BoardVisit = Schemas['BoardVisit']
export const NOBODY = null

/** Where a visit goes: whose day, which day, and before which other visit of it (null: at its end). */
export interface Place {
  technician: number | null
  day: string
  before: number | null
}

const LOOK_MS = 15_000

export interface UseBoardReturn {
  board: Ref<Schemas['Board'] | undefined>
  error: Ref<ApiError | null>
  trouble: Ref<string>
  busy: Ref<boolean>
  /** The visits of somebody on a day, in their order; those they help on come after their own. */
  cell: (person: number, day: string) => BoardVisit[]
  move: (visit: BoardVisit, to: Place) => Promise<boolean>
  change: (visit: BoardVisit, more: Partial<Schemas['PlanChangeIn']>) => Promise<boolean>
  cancel: (visit: BoardVisit, why: string) => Promise<boolean>
  refresh: () => Promise<void>
  all: ComputedRef<BoardVisit[]>
}

/** The board from `first` on; looked at again every quarter minute, and after each change. */
export function useBoard(
  first: MaybeRefOrGetter<string>,
  days: MaybeRefOrGetter<number>,
): UseBoardReturn {
  const cache = useQueryClient()
  const { trouble, busy, run } = useAsyncAction()
  const { data: board, error } = useQuery<Schemas['Board'], ApiError>({
    queryKey: computed(() => firmKeys.board(toValue(first), toValue(days))),
    queryFn: () => getBoard(toValue(first), toValue(days)),
    refetchOnMount: 'always',
    refetchInterval: LOOK_MS,
    placeholderData: (before) => before,
    shallow: true, // a board is replaced whole: a watcher on each field of 500 visits costs more than drawing
  })
  const refresh = () => cache.invalidateQueries({ queryKey: firmKeys.boards })
  const changed = async (work: () => Promise<unknown>): Promise<boolean> => {
    const done = await run(async () => void (await work()))
    await refresh() // also after a refusal: somebody else may have moved it
    return done
  }
  const change = (visit: BoardVisit, more: Partial<Schemas['PlanChangeIn']>) =>
    changed(() =>
      changePlan(visit.id, {
        seen: visit.plan_version,
        day: visit.day,
        technician: visit.technician_id,
        helpers: visit.helpers,
        start: visit.start,
        before: null,
        reason: visit.reason_key,
        complaint: visit.complaint,
        ...more,
      }),
    )
  const cells = computed(() => byCell(board.value?.visits ?? []))
  return {
    board,
    error,
    trouble,
    busy,
    cell: (person, day) => cells.value.get(cellKey(person, day)) ?? [],
    move: (visit, to) =>
      change(visit, {
        ...to,
        helpers: visit.helpers.filter((one) => to.technician !== null && one !== to.technician),
      }),
    change,
    cancel: (visit, why) => changed(() => cancelVisit(visit.id, why)),
    refresh,
    all: computed(() => [...(board.value?.visits ?? []), ...(board.value?.on_no_day ?? [])]),
  }
}
