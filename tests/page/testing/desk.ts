import { VueQueryPlugin } from '@tanstack/vue-query'
import { ref } from 'vue'
import { vi } from 'vitest'
import { DESK, type Desk } from '@/parts/desk/desk'

/** A desk whose every touch is remembered, for tests of views. */
export function deskSpy(more: Partial<Desk> = {}): Desk {
  return {
    narrow: ref(false),
    chosen: ref(''),
    waiting: ref(0),
    replace: vi.fn(),
    begin: vi.fn(),
    open: vi.fn(),
    write: vi.fn(),
    why: vi.fn(),
    pick: vi.fn(),
    suspect: vi.fn(),
    ...more,
  }
}

/** Mounting options that put a component on a desk, with links that are drawn as they are. */
export const onDesk = (desk: Desk) => ({
  global: {
    plugins: [VueQueryPlugin],
    provide: { [DESK as symbol]: desk },
    stubs: { RouterLink: { template: '<a><slot /></a>' } },
  },
})
