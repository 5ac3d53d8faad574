import { computed, onUnmounted, ref, shallowRef, type ComputedRef, type Ref } from 'vue'
import { endCapture, getCaptures, getTraces, startCapture } from '@/api/calls'
import type { Schemas } from '@/api/client'
import { useAsyncAction } from '@/api/useAsyncAction'
import { KEEP_S, newestOf, withSamples, type Buffers, type Notice } from './buffers'

const ASK_AGAIN_MS = 400

export interface UseLiveReturn {
  capture: Ref<Schemas['CaptureOut'] | null>
  buffers: Ref<Buffers>
  channels: Ref<Schemas['ChannelOut'][]>
  newest: ComputedRef<number>
  quietMs: Ref<number>
  trouble: Ref<string>
  ended: Ref<Schemas['CaptureOut'][]>
  open: (id: string) => Promise<boolean>
  start: (instruments: number[], stage: Schemas['CaptureIn']['stage']) => Promise<boolean>
  end: () => Promise<boolean>
}

/** Recordings that are over, the last to end first: one that was read from a file began long ago. */
const over = (known: Schemas['CaptureOut'][]) =>
  known
    .filter((row) => row.ended_at)
    .sort((a, b) => (b.ended_at ?? '').localeCompare(a.ended_at ?? ''))

/** The running capture of a visit: its samples as they arrive, fetched anew after a pause in the line. */
export function useLive(visit: number): UseLiveReturn {
  const capture = ref<Schemas['CaptureOut'] | null>(null)
  const buffers = shallowRef<Buffers>({})
  const channels = ref<Schemas['ChannelOut'][]>([])
  const { trouble, run } = useAsyncAction()
  const ended = ref<Schemas['CaptureOut'][]>([])
  const quietMs = ref(0)
  const newest = computed(() => newestOf(buffers.value))
  let heard = performance.now()
  let asking = 0
  let turn = 0 // counts what the person did: an answer to a question asked before it is of no use any more

  /** Fetch what the line did not bring: on opening, after a pause, when a channel is new. */
  const refetch = () =>
    run(async () => {
      if (capture.value?.ended_at) return
      const mine = turn
      const known = await getCaptures(visit)
      if (mine !== turn) return
      ended.value = over(known)
      const running = known.find((row) => !row.ended_at) ?? null
      if (running?.id !== capture.value?.id) buffers.value = {}
      capture.value = running
      if (!running) return
      const found = await getTraces(running.id, Math.max(0, newest.value - KEEP_S))
      if (mine !== turn) return
      channels.value = found.channels
      capture.value = found.capture
      for (const c of found.channels) {
        const known = c.seconds
          .map((t, i): [number, number | null] => [t, c.values[i] ?? null])
          .filter((row): row is [number, number] => row[1] !== null)
        // Samples that came while the answer was on its way stay; what lies before them is filled in.
        const first = buffers.value[c.quantity]?.t[0] ?? Infinity
        const older = known.filter(([t]) => t < first)
        buffers.value = withSamples(buffers.value, {
          [c.quantity]: [older.map(([t]) => 1000 * t), older.map(([, v]) => v)],
        })
      }
    })
  /** Look at a capture that is over, whole. */
  const open = (id: string) =>
    run(async () => {
      const found = await getTraces(id, 0)
      turn += 1
      capture.value = found.capture
      channels.value = found.channels
      buffers.value = Object.fromEntries(
        found.channels.map((c) => [c.quantity, { t: c.seconds, v: c.values.map((v) => v ?? NaN) }]),
      )
    })
  /** Samples come faster than answers: one request waits, further reasons for it are covered by it. */
  function askSoon(): void {
    asking ||= window.setTimeout(() => {
      asking = 0
      void refetch()
    }, ASK_AGAIN_MS)
  }
  function take(notice: Notice): void {
    heard = performance.now()
    if (notice.lost || !notice.channels || notice.capture !== capture.value?.id) {
      if (notice.lost) buffers.value = {}
      askSoon()
      return
    }
    buffers.value = withSamples(buffers.value, notice.channels)
    if (
      Object.keys(notice.channels).some((name) => !channels.value.some((c) => c.quantity === name))
    )
      askSoon()
  }
  const line = new EventSource(`/api/visits/${visit}/live`)
  line.onmessage = (event: MessageEvent<string>) => take(JSON.parse(event.data) as Notice)
  line.onopen = () => {
    buffers.value = {}
    void refetch()
  }
  const clock = window.setInterval(() => (quietMs.value = performance.now() - heard), 1000)
  onUnmounted(() => {
    line.close()
    window.clearInterval(clock)
    window.clearTimeout(asking)
  })

  const start = (instruments: number[], stage: Schemas['CaptureIn']['stage']) =>
    run(async () => {
      const begun = await startCapture(visit, { instruments, stage })
      turn += 1
      capture.value = begun
      buffers.value = {}
      channels.value = []
      heard = performance.now()
    })
  const end = () =>
    run(async () => {
      if (capture.value && !capture.value.ended_at) await endCapture(capture.value.id)
      turn += 1
      capture.value = null
      buffers.value = {}
      ended.value = over(await getCaptures(visit))
    })
  return { ended, open, capture, buffers, channels, newest, quietMs, trouble, start, end }
}
