import { openDB, type DBSchema, type IDBPDatabase } from 'idb'

/** A line that was typed and has not been confirmed by the server yet. */
export interface PendingLine {
  id: string
  visit: number
  person: string
  text: string
  stage: string | null
  phase: 'found' | 'left' | 'trial'
  at: string
  refused?: string
}

interface OutboxSchema extends DBSchema {
  lines: { key: string; value: PendingLine; indexes: { at: string } }
}

let opened: Promise<IDBPDatabase<OutboxSchema>> | undefined

function database(): Promise<IDBPDatabase<OutboxSchema>> {
  opened ??= openDB<OutboxSchema>('havrin', 1, {
    upgrade(db) {
      db.createObjectStore('lines', { keyPath: 'id' }).createIndex('at', 'at')
    },
  })
  return opened
}

/** All pending lines, oldest first. */
export async function pendingLines(): Promise<PendingLine[]> {
  return (await database()).getAllFromIndex('lines', 'at')
}

export async function keepLine(line: PendingLine): Promise<void> {
  await (await database()).put('lines', line)
}

export async function dropLine(id: string): Promise<void> {
  await (await database()).delete('lines', id)
}
