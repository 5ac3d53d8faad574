import type { Pending } from '@/outbox/store'

/** A tablet's disk for tests: `vi.mock('@/outbox/store', async () => (await import('@tests/testing/disk')).disk)`. */
export const rows = new Map<string, Pending>()
/** What the disk was told, in order. */
export const told: string[] = []
export const trouble = { full: false }

export function emptied(): void {
  rows.clear()
  told.length = 0
  trouble.full = false
}

async function changed(change: () => void): Promise<void> {
  if (trouble.full) throw new Error('QuotaExceededError')
  change()
  await Promise.resolve()
}

export const disk = {
  pendingItems: async () => {
    await changed(() => undefined)
    return [...rows.values()].sort((a, b) => a.at.localeCompare(b.at))
  },
  keepItem: (item: Pending, replaces = '') =>
    changed(() => {
      told.push(`keep ${item.id}`)
      rows.set(item.id, item)
      rows.delete(replaces)
    }),
  dropItems: (ids: string[]) =>
    changed(() => {
      for (const id of ids) {
        told.push(`drop ${id}`)
        rows.delete(id)
      }
    }),
}
