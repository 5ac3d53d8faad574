import { afterEach, expect, it } from 'vitest'
import { createMemoryHistory, createRouter } from 'vue-router'
import { useFocusOnEntering } from '@/app/useFocusOnEntering'

const nothing = { render: () => null }
const routes = ['/a', '/b'].map((path) => ({ path, component: nothing }))

async function entered(focused: string): Promise<string> {
  document.body.innerHTML = '<main id="main" tabindex="-1"></main><input id="line">'
  const router = createRouter({ history: createMemoryHistory(), routes })
  useFocusOnEntering(router)
  await router.push('/a')
  document.getElementById(focused)?.focus()
  await router.push('/b')
  await Promise.resolve()
  return document.activeElement?.id ?? ''
}
afterEach(() => (document.body.innerHTML = ''))

it('puts the focus on the view that was entered', async () =>
  expect(await entered('nowhere')).toBe('main'))
it('leaves a field to whoever types in it', async () => expect(await entered('line')).toBe('line'))
it('begins a view at its top', async () => {
  document.body.innerHTML = '<main id="main" tabindex="-1"></main>'
  const router = createRouter({ history: createMemoryHistory(), routes })
  useFocusOnEntering(router)
  await router.push('/a')
  document.getElementById('main')!.scrollTop = 90
  await router.push('/b')
  await Promise.resolve()
  expect(document.getElementById('main')!.scrollTop).toBe(0)
})
