import { mount } from '@vue/test-utils'
import { createPinia, setActivePinia } from 'pinia'
import { beforeEach, describe, expect, it } from 'vitest'
import type { Schemas } from '@/api/client'
import { useBar } from '@/parts/desk/bar'
import { said } from '@tests/testing/said'
import BarButtons from '@/features/entry/BarButtons.vue'

beforeEach(() => setActivePinia(createPinia()))

const held = (name: string, more: Partial<Schemas['InstrumentOut']> = {}) => ({
  id: 1,
  name,
  kind: 'analyzer',
  kind_name: 'Combustion analyzer',
  calibrated_until: '2026-05-01',
  in_date: true,
  in_hand: true,
  own: false,
  in_hand_before: false,
  ...more,
})
const buttons = (instruments: Schemas['InstrumentOut'][]) =>
  mount(BarButtons, { props: { instruments, writes: true } }).get('.held')

describe('the instruments in hand, in the bar', () => {
  it('are named, the others counted', () => {
    const shown = buttons([held('Analyzer 1'), held('Manometer'), held('Old', { in_hand: false })])
    expect(said(shown)).toBe('Analyzer 1 + 1')
    expect(shown.attributes('aria-label')).toContain('Analyzer 1, Manometer')
    expect(shown.classes()).not.toContain('warn')
  })
  it('are asked for where none was chosen today', async () => {
    const shown = buttons([held('Analyzer 1', { in_hand: false })])
    expect(said(shown)).toBe('Instruments …')
    await shown.trigger('click')
    expect(useBar().choosesInstruments).toBe(true)
  })
  it('warn where one of them is out of calibration', () => {
    const late = held('Clamp meter', { in_date: false })
    expect(buttons([held('Analyzer 1'), late]).classes()).toContain('warn')
  })
})
