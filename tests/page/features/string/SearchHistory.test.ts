import { VueQueryPlugin } from '@tanstack/vue-query'
import { mount } from '@vue/test-utils'
import { beforeEach, expect, it, vi } from 'vitest'
import { getSearchHistory, keys } from '@/api/calls'
import type { Schemas } from '@/api/client'
import SearchHistory from '@/features/string/SearchHistory.vue'
import { said } from '@tests/testing/said'

vi.mock('@/api/calls', () => ({
  getSearchHistory: vi.fn(),
  keys: { searchHistory: (id: number, version: number) => ['search history', id, version] },
}))
const page = {
  id: 7,
  version: 3,
  tape: [
    { id: 'a', text: 'Code', value: '2 3' },
    { id: 'b', text: 'Owner was kind', value: '' },
  ],
} as unknown as Schemas['VisitPage']
const show = () => mount(SearchHistory, { props: { page }, global: { plugins: [VueQueryPlugin] } })
async function opened() {
  const shown = show()
  const details = shown.get('details')
  ;(details.element as HTMLDetailsElement).open = true
  await details.trigger('toggle')
  return shown
}

beforeEach(() => vi.mocked(getSearchHistory).mockReset())

it('asks for nothing before it is opened', () => {
  show()
  expect(getSearchHistory).not.toHaveBeenCalled()
  expect(keys.searchHistory(7, 3)).toContain(7)
})

it('tells after each entry who led, and which entry said nothing', async () => {
  vi.mocked(getSearchHistory).mockResolvedValue([
    { entry_id: 'a', counted: true, first: 'Pressure switch', share: 0.31 },
    { entry_id: 'b', counted: false, first: '', share: 0 },
  ])
  const shown = await opened()
  await vi.waitFor(() => expect(shown.findAll('li')).toHaveLength(2))
  const rows = shown.findAll('li').map((row) => said(row))
  expect(rows[0]).toContain('Code 2 3')
  expect(rows[0]).toContain('Pressure switch 31 %')
  expect(rows[1]).toContain('says nothing to the search')
})
