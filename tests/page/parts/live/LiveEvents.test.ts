import { flushPromises, mount } from '@vue/test-utils'
import { createPinia, setActivePinia } from 'pinia'
import { beforeEach, describe, expect, it, vi } from 'vitest'
import * as calls from '@/api/calls'
import type { Schemas } from '@/api/client'
import { said } from '@tests/testing/said'
import LiveEvents from '@/parts/live/LiveEvents.vue'

vi.mock('@/api/calls', () => ({ getTraceReading: vi.fn(), markEvent: vi.fn() }))

const shown = (text: string, unit: string) => ({ text, unit })
const told = (over: Partial<Schemas['StepTold']> = {}): Schemas['StepTold'] => ({
  before: shown('7.0', '%'),
  after: shown('8.0', '%'),
  step: shown('+1.0', '%'),
  half_width: shown('0.2', '%'),
  confidence_pct: 99.99,
  sure: 'over 99 % sure',
  ...over,
})
const step = (over: Partial<Schemas['StepOut']> = {}): Schemas['StepOut'] => ({
  quantity: 'o2_dry_pct',
  name: 'Flue O₂',
  told: told(),
  cannot_tell: '',
  asked: true,
  clear: true,
  writes: true,
  ...over,
})
const reading = (over: Partial<Schemas['TraceReadingOut']> = {}): Schemas['TraceReadingOut'] => ({
  together: null,
  each: [],
  events: [],
  kinds: { cover_off: 'Cover off', blower_on: 'Blower on' },
  ...over,
})
const event = (steps: Schemas['StepOut'][]): Schemas['TraceEventOut'] => ({
  kind: 'blower_on',
  name: 'Blower on',
  at_s: 92,
  marked: false,
  steps,
})
async function shownWith(said: Schemas['TraceReadingOut'], over = false) {
  vi.mocked(calls.getTraceReading).mockResolvedValue(said)
  const panel = mount(LiveEvents, {
    props: { capture: 'c1', now: 130.5, writable: true, over },
  })
  await flushPromises()
  return panel
}

describe('LiveEvents', () => {
  beforeEach(() => {
    setActivePinia(createPinia())
    vi.clearAllMocks()
  })

  it('offers the means of a stretch in which all was still', async () => {
    const panel = await shownWith(
      reading({ together: { names: ['Manifold'], start_s: 65, end_s: 125 } }),
    )
    expect(said(panel)).toContain('All still from 1:05 to 2:05')
    await panel.get('.still button').trigger('click')
    expect(panel.emitted('window')).toEqual([[65, 125]])
  })
  it('says which channels are still by themselves while others move', async () => {
    const panel = await shownWith(
      reading({ each: [{ names: ['Manifold'], start_s: 1, end_s: 30 }] }),
    )
    expect(panel.text()).toContain('Not all still yet')
    expect(panel.text()).toContain('Manifold')
  })
  it('marks an event at the moment of the touch', async () => {
    const panel = await shownWith(reading())
    vi.mocked(calls.markEvent).mockResolvedValue(reading())
    await panel
      .findAll('.marks button')
      .find((b) => b.text() === 'Cover off')
      ?.trigger('click')
    expect(vi.mocked(calls.markEvent).mock.calls[0]?.[1]).toMatchObject({
      kind: 'cover_off',
      at_s: 130.5,
    })
  })
  it('shows a clear step, leaves out noise, and always shows the one that the event is for', async () => {
    const noise = step({
      quantity: 'draft_pa',
      name: 'Draft at switch',
      asked: false,
      clear: false,
    })
    const still = step({ clear: false, told: told({ sure: 'within its noise' }) })
    const panel = await shownWith(reading({ events: [event([noise, still])] }))
    expect(panel.text()).not.toContain('Draft at switch')
    expect(panel.text()).toContain('within its noise')
    expect(said(await shownWith(reading({ events: [event([step()])] })))).toContain(
      '+1.0 % ± 0.2, over 99 % sure',
    )
  })
  it('says why a step cannot be told, and does not offer to write it', async () => {
    const untold = step({
      told: null,
      cannot_tell: 'Cannot tell: stage change 1 s later.',
      writes: false,
    })
    const panel = await shownWith(reading({ events: [event([untold])] }))
    expect(panel.text()).toContain('Cannot tell: stage change 1 s later.')
    expect(panel.find('.step button').exists()).toBe(false)
  })
  it('writes the step of the event that was touched', async () => {
    const panel = await shownWith(reading({ events: [event([step()])] }))
    await panel.get('.step button').trigger('click')
    expect(panel.emitted('step')).toEqual([[92]])
  })
  it('marks nothing on a recording that is over', async () => {
    expect((await shownWith(reading(), true)).find('.marks').exists()).toBe(false)
  })
})
