import { defineStore } from 'pinia'
import { computed, ref, shallowRef } from 'vue'
import type { Schemas } from '@/api/client'
import { patienceAfter, waitAfter } from './backOff'
import { deliver } from './deliver'
import { localIso } from './device'
import { trySend, type Fate } from './send'
import { askOnEveryWire } from './wires'
import { dropItems, keepItem, pendingItems, type Pending, type Refused, type Said } from './store'

type OnPage = (page: Schemas['VisitPage']) => void

/**
 * What was entered and is on its way to the server. It is on the tablet's disk in the same tick as it is entered, and
 * leaves the disk only when the server has answered that it is stored.
 */
export const useOutbox = defineStore('outbox', () => {
  const items = shallowRef<Pending[]>([])
  const person = ref('')
  /** The server did not answer the last try. */
  const unreachable = ref(false)
  /** The server answered that nobody is signed in: what waits goes on waiting. */
  const signedOut = ref(false)
  /** This tablet's disk takes nothing: what waits is in this page alone. */
  const offDisk = ref(false)
  const mine = computed(() => items.value.filter((one) => one.person === person.value))
  const waiting = computed(() => (person.value ? mine : items).value.filter((one) => !one.refused))
  let onPage: OnPage = () => undefined
  let running: Promise<void> | null = null
  let tries = 0
  let timer = 0

  /** Reads what waits from the disk: before anything is asked of the server. */
  async function read(): Promise<void> {
    try {
      const onDisk = await pendingItems()
      const known = new Set(onDisk.map((one) => one.id))
      items.value = [...onDisk, ...items.value.filter((one) => !known.has(one.id))]
    } catch {
      offDisk.value = true
    }
  }

  /** Sends for `who` from now on; a page that comes back goes to `handlePage`. */
  async function start(who: string, handlePage: OnPage): Promise<void> {
    person.value = who
    onPage = handlePage
    signedOut.value = false
    await read()
    await flush()
  }

  /** Keeps what was entered, instead of an item that it replaces; gives its id at once. */
  function add(visit: number, said: Said, replaces = ''): string {
    const id = crypto.randomUUID()
    // a signature or marks come from fields that watch themselves: the disk takes plain values
    const plain: Said = said.kind === 'photo' ? said : JSON.parse(JSON.stringify(said))
    const item = { ...plain, id, visit, person: person.value, at: localIso(new Date()) } as Pending
    keepItem(item, replaces).catch(() => (offDisk.value = true))
    items.value = [...items.value.filter((one) => one.id !== replaces), item]
    void flush()
    return id
  }

  function flush(): Promise<void> {
    window.clearTimeout(timer)
    running ??= sendAll().finally(() => {
      running = null
      if (unreachable.value) void askOnEveryWire().then((there) => there && flushNow())
      if (waiting.value.length && !signedOut.value)
        timer = window.setTimeout(() => void flush(), waitAfter(Math.max(tries, 1)))
    })
    return running
  }

  /** The signal is back, somebody looks or signs in again: no waiting for the next try. */
  function flushNow(): void {
    tries = 0
    signedOut.value = false
    if (waiting.value.length) void flush()
  }

  async function sendAll(): Promise<void> {
    const stuck = new Set<string>()
    for (;;) {
      const next = waiting.value.find((one) => one.person === person.value && !stuck.has(one.id))
      if (!next) return
      const fate = await trySend(next, async (item) =>
        onPage(await deliver(item, patienceAfter(tries))),
      )
      await settle(next, fate)
      if (fate.kind !== 'kept') continue
      if (fate.because !== 'trouble') return
      stuck.add(next.id) // the server is there and chokes on this one: the others need not wait for it
    }
  }

  async function settle(item: Pending, fate: Fate): Promise<void> {
    const kept = fate.kind === 'kept' ? fate.because : ''
    unreachable.value = kept === 'silence'
    signedOut.value = kept === 'signed_out'
    tries = kept ? tries + 1 : 0
    if (fate.kind === 'sent') await remove([item.id])
    if (fate.kind === 'refused') await refuse(item, fate.refused)
  }

  async function refuse(item: Pending, refused: Refused): Promise<void> {
    if (!items.value.some((one) => one.id === item.id)) return // discarded meanwhile
    const told = { ...item, refused }
    items.value = items.value.map((one) => (one.id === item.id ? told : one))
    await keepItem(told).catch(() => (offDisk.value = true))
  }

  /** Takes away what the server has, or what its author discarded. */
  async function remove(ids: string[]): Promise<void> {
    const gone = new Set(ids)
    if (!items.value.some((one) => gone.has(one.id))) return
    items.value = items.value.filter((one) => !gone.has(one.id))
    await dropItems(ids).catch(() => undefined) // sent again under its id, it is written once
  }

  window.addEventListener('online', flushNow)
  document.addEventListener('visibilitychange', () => !document.hidden && flushNow())
  return {
    items,
    mine,
    waiting,
    unreachable,
    signedOut,
    offDisk,
    read,
    start,
    add,
    flush,
    flushNow,
    remove,
  }
})
