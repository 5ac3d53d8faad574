import { inject, provide, type InjectionKey, type Ref } from 'vue'
import type { Schemas } from '@/api/client'

/** What every view of a visit can ask of the screen around it. */
export interface Desk {
  narrow: Ref<boolean>
  /** The station that is looked at or written about; "" for none. */
  chosen: Ref<string>
  /** How many lines of this visit have not reached the server. */
  waiting: Ref<number>
  /** Shows the visit as the server answered. */
  replace: (page: Schemas['VisitPage']) => void
  /** Puts the beginning of a line into the bar. */
  begin: (starter: string, station?: string) => void
  /** Opens a station with all that was read there. */
  open: (station: string) => void
  /** Writes a whole line. */
  write: (line: string) => void
  /** Opens the list of all that a part may be like, or that is done to it. */
  pick: (part: string, list?: 'found' | 'done') => void
  /** Shows how a figure came about. */
  why: (figure: Schemas['Explained']) => void
  /** Shows the suspects beside the view. */
  suspect: (found: Schemas['SuspectsOut'] | null) => void
}

/** Where a desk is found; screens provide it, views ask for it by `useDesk`. */
export const DESK: InjectionKey<Desk> = Symbol('desk')

export const provideDesk = (desk: Desk): void => provide(DESK, desk)

/** The desk of the visit that a view stands on. */
export function useDesk(): Desk {
  const desk = inject(DESK)
  if (!desk) throw new Error('a view of a visit stands on the visit’s screen')
  return desk
}
