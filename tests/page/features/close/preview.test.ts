import { flushPromises, mount } from '@vue/test-utils'
import { QueryClient, VueQueryPlugin } from '@tanstack/vue-query'
import { describe, expect, it, vi } from 'vitest'
import { getPreview } from '@/api/calls'
import type { Schemas } from '@/api/client'
import PaperPreview from '@/features/close/PaperPreview.vue'

vi.mock('@/api/calls', async (original) => ({
  ...(await original<typeof import('@/api/calls')>()),
  getPreview: vi.fn((_: number, kind: string) =>
    Promise.resolve({ html: `<html><head></head><body>${kind}</body></html>` }),
  ),
}))

const panel = () =>
  mount(PaperPreview, {
    props: { page: { id: 7, version: 3 } as Schemas['VisitPage'] },
    global: { plugins: [[VueQueryPlugin, { queryClient: new QueryClient() }]] },
  })

describe('a paper before it is printed', () => {
  it('is the customer’s first, in a frame that runs nothing', async () => {
    const shown = panel()
    await flushPromises()
    expect(shown.get('iframe').attributes('sandbox')).toBe('allow-same-origin')
    expect(shown.get('iframe').attributes('srcdoc')).toContain('customer')
  })
  it('is another at a touch', async () => {
    const shown = panel()
    await shown.findAll('.kinds button')[1]!.trigger('click')
    await flushPromises()
    expect(vi.mocked(getPreview)).toHaveBeenLastCalledWith(7, 'tag')
    expect(shown.get('iframe').attributes('srcdoc')).toContain('tag')
  })
})
