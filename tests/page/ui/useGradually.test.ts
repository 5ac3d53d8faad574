import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest'
import { effectScope, nextTick, ref } from 'vue'
import { useGradually } from '@/ui/useGradually'

beforeEach(() => {
  vi.useFakeTimers()
})
afterEach(() => {
  vi.useRealTimers()
})

/** Each frame that passes, and how many rows are drawn after it. */
function frames(many: number, drawn: { value: number }): number[] {
  return Array.from({ length: many }, () => {
    vi.advanceTimersToNextFrame()
    return drawn.value
  })
}

describe('a list drawn gradually', () => {
  it('begins with a portion and ends with everything', () => {
    const drawn = effectScope().run(() => useGradually(5, 2))!
    expect(drawn.value).toBe(2)
    const seen = frames(8, drawn)
    expect(seen).toEqual([...seen].sort())
    expect(seen.at(-1)).toBe(5)
  })

  it('never draws more rows than there are', () => {
    const drawn = effectScope().run(() => useGradually(1, 4))!
    expect(drawn.value).toBe(1)
  })

  it('goes on when more rows come later', async () => {
    const count = ref(2)
    const drawn = effectScope().run(() => useGradually(count, 2))!
    expect(frames(3, drawn).at(-1)).toBe(2)
    count.value = 4
    await nextTick()
    expect(frames(6, drawn).at(-1)).toBe(4)
  })

  it('stops with the view that draws it', () => {
    const scope = effectScope()
    const drawn = scope.run(() => useGradually(50, 1))!
    frames(3, drawn)
    scope.stop()
    const before = drawn.value
    expect(frames(5, drawn).at(-1)).toBe(before)
  })
})
