import { defineStore } from 'pinia'
import { computed, ref } from 'vue'
import { writeLine } from '@/api/calls'
import type { Schemas } from '@/api/client'
import { trySend } from './send'
import { dropLine, keepLine, pendingLines, type PendingLine } from './store'

const RETRY_MS = 3000

/** Lines on their way to the server. A line goes to the tablet's disk as it is sent. */
export const useOutbox = defineStore('outbox', () => {
  const lines = ref<PendingLine[]>([])
  const unreachable = ref(false)
  const waiting = computed(() => lines.value.filter((line) => !line.refused))
  let onPage: (page: Schemas['VisitPage']) => void = () => undefined
  let running: Promise<void> | null = null
  let person = ''

  async function start(
    who: string,
    handlePage: (page: Schemas['VisitPage']) => void,
  ): Promise<void> {
    person = who
    onPage = handlePage
    lines.value = (await pendingLines()).filter((line) => line.person === who)
    void flush()
  }

  async function add(line: Omit<PendingLine, 'id' | 'at' | 'person'>): Promise<void> {
    const kept: PendingLine = { ...line, person, id: crypto.randomUUID(), at: localIso(new Date()) }
    // Onto the disk and to the server at once: the disk keeps the order, so the later removal cannot overtake it.
    const onDisk = keepLine({ ...kept })
    lines.value.push(kept)
    await Promise.all([onDisk, flush()])
  }

  function flush(): Promise<void> {
    running ??= sendAll().finally(() => (running = null))
    return running
  }

  async function sendAll(): Promise<void> {
    for (;;) {
      const next = waiting.value[0]
      if (!next) break
      const fate = await trySend(next, async ({ id, text, stage, phase, at, visit }) =>
        onPage(
          await writeLine(visit, {
            id,
            text,
            stage,
            phase,
            at,
            as_note: false,
            sent_at: localIso(new Date()),
            device: deviceName(),
          }),
        ),
      )
      unreachable.value = fate.kind === 'kept'
      if (fate.kind === 'kept') return
      if (fate.kind === 'refused') await refuse(next, fate.why)
      else await remove(next.id)
    }
  }

  async function refuse(line: PendingLine, why: string): Promise<void> {
    line.refused = why
    await keepLine({ ...line })
    lines.value = [...lines.value]
  }

  async function remove(id: string): Promise<void> {
    await dropLine(id)
    lines.value = lines.value.filter((line) => line.id !== id)
  }

  const timer = window.setInterval(() => waiting.value.length && void flush(), RETRY_MS)
  window.addEventListener('online', () => void flush())
  return { lines, waiting, unreachable, start, add, flush, remove, timer }
})

/** This tablet's own name: whose clock wrote a line. Made once, kept on the tablet. */
export function deviceName(): string {
  const kept = localStorage.getItem('havrin-device') ?? `tablet-${crypto.randomUUID().slice(0, 8)}`
  localStorage.setItem('havrin-device', kept)
  return kept
}

/** The moment with the tablet's own zone, like 2026-01-14T10:29:08+01:00. */
export function localIso(moment: Date): string {
  const offset = -moment.getTimezoneOffset()
  const sign = offset < 0 ? '-' : '+'
  const two = (n: number) => String(Math.floor(Math.abs(n))).padStart(2, '0')
  const local = new Date(moment.getTime() + offset * 60_000).toISOString().slice(0, 23)
  return `${local}${sign}${two(offset / 60)}:${two(offset % 60)}`
}
