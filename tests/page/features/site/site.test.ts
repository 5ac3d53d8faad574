import { mount } from '@vue/test-utils'
import { describe, expect, it } from 'vitest'
import type { Schemas } from '@/api/client'
import { said } from '@tests/testing/said'
import SideBySide from '@/features/site/SideBySide.vue'

const global = { stubs: { RouterLink: { template: '<a><slot /></a>' } } }

describe('units side by side', () => {
  const site = {
    units: [
      {
        id: 1,
        label: 'F-1',
        kind: '80 % furnace',
        gas_line: 'branch A',
        level: 3,
        day: '2026-01-14',
        title: 'Do not leave running yet',
      },
      { id: 2, label: 'F-2', kind: 'Unit heater', gas_line: '', level: null, day: null, title: '' },
    ],
    rows: [
      {
        name: 'Manifold',
        stage: 'high',
        cells: [{ text: '3.9', unit: 'inWC', state: 'out', side: 'over', day: '2026-01-14' }, null],
      },
    ],
  } as unknown as Schemas['SiteOut']
  const table = () => mount(SideBySide, { props: { site }, global })
  it('say what each is and how it was left', () => {
    const heads = table().findAll('thead th').map(said)
    expect(heads[1]).toContain('F-1')
    expect(heads[1]).toContain('branch A')
    expect(heads[1]).toContain('Do not leave running yet, 14 Jan 2026')
    expect(heads[2]).toContain('Never visited')
  })
  it('show number, unit, side and day, and a dash where nothing was read', () => {
    const [first, second] = table().findAll('tbody td')
    expect(said(first!)).toBe('3.9 inWC over 14 Jan 2026')
    expect(first!.classes()).toContain('out')
    expect(said(second!)).toBe('–')
    expect(said(table().get('tbody th'))).toContain('high fire')
  })
})
