import { flushPromises, mount } from '@vue/test-utils'
import { beforeEach, describe, expect, it, vi } from 'vitest'
import { defineComponent } from 'vue'
import * as calls from '@/api/calls'
import type { Schemas } from '@/api/client'
import { useLive, type UseLiveReturn } from '@/parts/live/useLive'

vi.mock('@/api/calls', () => ({
  endCapture: vi.fn(),
  getCaptures: vi.fn(),
  getTraces: vi.fn(),
  startCapture: vi.fn(),
}))

class Line {
  static last: Line
  onopen: () => void = () => undefined
  onmessage: (event: { data: string }) => void = () => undefined
  close = vi.fn()
  constructor(readonly url: string) {
    Line.last = this
  }
}
const running: Schemas['CaptureOut'] = {
  id: 'c1',
  started_at: '2026-01-14T09:00:00Z',
  ended_at: null,
  simulated: false,
  recorders: [],
}
const nothing: Schemas['TracesOut'] = { capture: running, channels: [] }

/** The composable in a component of its own, with its line open. */
function opened(): UseLiveReturn {
  let live: UseLiveReturn | undefined
  mount(
    defineComponent({
      setup: () => {
        live = useLive(7)
        return () => null
      },
    }),
  )
  Line.last.onopen()
  return live as UseLiveReturn
}

describe('a live capture', () => {
  beforeEach(() => {
    vi.clearAllMocks()
    vi.stubGlobal('EventSource', Line)
    vi.mocked(calls.getTraces).mockResolvedValue(nothing)
    vi.mocked(calls.startCapture).mockResolvedValue(running)
  })

  it('is not taken away by an answer to what was asked before it began', async () => {
    let answer: (known: Schemas['CaptureOut'][]) => void = () => undefined
    vi.mocked(calls.getCaptures).mockReturnValue(new Promise((done) => (answer = done)))
    const live = opened()
    await live.start([1], 'only')
    answer([])
    await flushPromises()
    expect(live.capture.value?.id).toBe('c1')
  })
  it('that somebody else began is found on opening', async () => {
    vi.mocked(calls.getCaptures).mockResolvedValue([running])
    const live = opened()
    await flushPromises()
    expect(live.capture.value?.id).toBe('c1')
  })
  it('that was ended is not brought back by an answer from before', async () => {
    vi.mocked(calls.getCaptures).mockResolvedValue([running])
    const live = opened()
    await flushPromises()
    let answer: (known: Schemas['CaptureOut'][]) => void = () => undefined
    vi.mocked(calls.getCaptures).mockReturnValueOnce(new Promise((done) => (answer = done)))
    Line.last.onopen()
    vi.mocked(calls.getCaptures).mockResolvedValue([
      { ...running, ended_at: '2026-01-14T09:05:00Z' },
    ])
    await live.end()
    answer([running])
    await flushPromises()
    expect(live.capture.value).toBeNull()
    expect(live.ended.value).toHaveLength(1)
  })
})
