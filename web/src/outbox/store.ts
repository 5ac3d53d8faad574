import { openDB, type DBSchema, type IDBPDatabase } from 'idb'
import type { Schemas } from '@/api/client'

type Told<T> = Omit<T, 'id' | 'at'>

/** What a log or a trace shows, to be written on the tape: `source` is the log's or the capture's id. */
export type FromTrace = { kind: 'trace'; source: string } & (
  | { what: 'log_means'; body: Told<Schemas['WriteMeansIn']> }
  | { what: 'means'; body: Told<Schemas['WindowMeansIn']> }
  | { what: 'dips'; body: Told<Schemas['DipsIn']> }
  | { what: 'step'; body: Told<Schemas['StepIn']> }
)

/** What was entered: a line, what an entry should have said (null strikes it), a photo, marks on one, the close. */
export type Said =
  | FromTrace
  | { kind: 'closing'; body: Schemas['CloseIn'] }
  | {
      kind: 'line'
      text: string
      stage: Schemas['LineIn']['stage']
      phase: 'found' | 'left' | 'trial'
    }
  | { kind: 'correction'; corrects: string; said: string; text: string | null; why: string }
  | { kind: 'photo'; file: File; station: string }
  | { kind: 'marks'; photo: string; marks: Schemas['MarkIn'][] }

/** What was entered on this tablet and has not been answered by the server as stored. */
export type Pending = Said & {
  id: string
  visit: number
  person: string
  at: string
  /** Why the server refused it, by a rule of its own; it stays here until somebody enters it anew or discards it. */
  refused?: Refused
}

export interface Refused {
  why: string
  code: string
  details: string[]
}

interface OutboxSchema extends DBSchema {
  lines: { key: string; value: Pending; indexes: { at: string } }
}

let opened: Promise<IDBPDatabase<OutboxSchema>> | undefined

/** Opens the store; called when the page begins, so that an Enter finds it open. */
export function database(): Promise<IDBPDatabase<OutboxSchema>> {
  opened ??= openDB<OutboxSchema>('havrin', 2, {
    async upgrade(db, before, _now, transaction) {
      if (before < 1) db.createObjectStore('lines', { keyPath: 'id' }).createIndex('at', 'at')
      if (before !== 1) return
      // What a page of the first version left here were lines alone.
      for (const row of await transaction.objectStore('lines').getAll())
        await transaction.objectStore('lines').put(asOfNow(row))
    },
    blocking: () => void opened?.then((db) => db.close()).then(() => (opened = undefined)),
  })
  return opened
}

/** A row of the first version: it had no kind, and told only why it was refused. */
export function asOfNow(row: object): Pending {
  const { refused, ...rest } = row as Pending & { refused?: unknown }
  const why =
    typeof refused === 'string' ? { refused: { why: refused, code: '', details: [] } } : {}
  return { ...rest, kind: 'line', ...why } as Pending
}

/** All that waits, oldest first. */
export async function pendingItems(): Promise<Pending[]> {
  return (await database()).getAllFromIndex('lines', 'at')
}

/** Keeps an item, instead of another one where `replaces` names it: at no moment is neither on the disk. */
export async function keepItem(item: Pending, replaces = ''): Promise<void> {
  const changing = (await database()).transaction('lines', 'readwrite', { durability: 'strict' })
  void changing.store.put(item)
  if (replaces) void changing.store.delete(replaces)
  changing.commit() // at once: a tab that is closed in this very moment takes nothing along
  await changing.done
}

export async function dropItems(ids: string[]): Promise<void> {
  const changing = (await database()).transaction('lines', 'readwrite')
  for (const id of ids) void changing.store.delete(id)
  await changing.done
}
