import { mount } from '@vue/test-utils'
import { beforeEach, describe, expect, it, vi } from 'vitest'
import { defineComponent, h, type Ref } from 'vue'
import { createMemoryHistory, createRouter, type Router } from 'vue-router'
import { useFetchAhead } from '@/features/visit/useFetchAhead'

const nothing = { render: () => null }
const away = () => Promise.reject(new Error('no signal'))

async function ahead(
  files: (() => Promise<unknown>)[],
): Promise<{ missing: Ref<boolean>; router: Router }> {
  const routes = [
    { path: '/', component: nothing },
    { path: '/gas', component: nothing },
    { path: '/flue', component: away },
  ]
  const router = createRouter({ history: createMemoryHistory(), routes })
  await router.push('/')
  let missing: Ref<boolean> | undefined
  const Host = defineComponent(() => {
    missing = useFetchAhead(files)
    return () => h('i')
  })
  mount(Host, { global: { plugins: [router] } })
  return { missing: missing!, router }
}

describe('views fetched ahead', () => {
  beforeEach(() => {
    vi.useFakeTimers()
    return () => vi.useRealTimers()
  })
  it('come once the first one stands, and one that does not come stops no other', async () => {
    const files = [vi.fn(away), vi.fn(() => Promise.resolve())]
    await ahead(files)
    expect(files[0]).not.toHaveBeenCalled()
    await vi.advanceTimersByTimeAsync(2000)
    for (const file of files) expect(file).toHaveBeenCalledTimes(1)
  })
  it('are said to be missing where they cannot be fetched, until another one opens', async () => {
    const { missing, router } = await ahead([])
    await router.push('/flue').catch(() => undefined)
    expect(missing.value).toBe(true)
    await router.push('/gas')
    expect(missing.value).toBe(false)
  })
})
