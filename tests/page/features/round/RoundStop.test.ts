import { mount, RouterLinkStub } from '@vue/test-utils'
import { expect, it } from 'vitest'
import type { Schemas } from '@/api/client'
import RoundStop from '@/features/round/RoundStop.vue'

const stop: Schemas['RoundVisit'] = {
  id: 7,
  unit_id: 3,
  day: '2026-01-14',
  start: null,
  address: '',
  hours: '',
  hazards: '',
  phone: '',
  vulnerable: '',
  since: '',
  there: '',
  task: '',
  parts: [],
  whose: 'Tove Lindgarth',
  turn: 1,
  site: 'Orrin Street Music School',
  access: 'Side door',
  unit_name: 'F-1 · Stage room',
  unit_line: '80 % furnace',
  reason: 'Maintenance',
  complaint: 'Cold',
  level: 3,
  title: 'Not shown yet',
  settled: false,
  closed: false,
  entries: 0,
  last_day: '2025-11-16',
  last_title: 'Leave running',
  last_level: 1,
  last_words: '',
  advice: ['Advised: new igniter'],
}
const shown = (more: Partial<Schemas['RoundVisit']>) =>
  mount(RoundStop, {
    props: { stop: { ...stop, ...more } },
    global: { stubs: { RouterLink: RouterLinkStub } },
  })

it('tells where, why, and what was last found', () => {
  const text = shown({}).text()
  for (const words of [
    'F-1 · Stage room',
    '“Cold”',
    'Leave running',
    '16 Nov 2025',
    'Advised: new igniter',
    'Not begun',
  ])
    expect(text).toContain(words)
})
it('tells a visit that was begun', () =>
  expect(shown({ entries: 3, settled: true }).text()).toContain('Begun, 3 entries'))
it('leads a closed visit to its papers', () =>
  expect(shown({ closed: true }).findComponent(RouterLinkStub).props('to')).toBe('/visits/7/close'))
it('tells a unit that nobody visited', () =>
  expect(shown({ last_day: null }).text()).toContain('Never visited before'))
