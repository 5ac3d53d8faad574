import { mount } from '@vue/test-utils'
import { describe, expect, it } from 'vitest'
import { choices } from '@tests/testing/choices'
import { said } from '@tests/testing/said'
import KindDrawing from '@/features/shop/KindDrawing.vue'
import type { KindDocument } from '@/features/shop/kindForm'
import MustShow from '@/features/shop/MustShow.vue'
import StationTable from '@/features/shop/StationTable.vue'

const kind: KindDocument = {
  key: 'mine',
  name: 'Mine',
  paths: [
    {
      key: 'gas',
      name: 'Gas',
      direction: 'down',
      hint: '',
      stations: [
        { key: 'supply', name: 'Supply', quantity: 'manifold_pa' },
        { key: 'manifold', name: 'Manifold' },
      ],
    },
  ],
  must_show: { every: ['cycles'] },
}

describe('the stations of a path', () => {
  const table = (shipped = false) =>
    mount(StationTable, {
      props: {
        document: kind,
        path: 0,
        shipped,
        blamed: 'manifold',
        quantities: choices.quantities,
      },
    })
  const keysOf = (event: unknown[]) =>
    (event[0] as KindDocument).paths[0]!.stations.map((s) => s.key)
  it('mark the one that a problem speaks of', () =>
    expect(table().findAll('tr.blamed')).toHaveLength(1))
  it('are renamed, moved, taken out and added', async () => {
    const panel = table()
    await panel.findAll('.name')[0]!.setValue('Gas supply')
    await panel.findAll('.moves button')[2]!.trigger('click')
    await panel.findAll('.moves button')[1]!.trigger('click')
    await panel.get('.btn').trigger('click')
    const events = panel.emitted('change')!
    expect((events[0]![0] as KindDocument).paths[0]!.stations[0]!.name).toBe('Gas supply')
    expect(keysOf(events[1]!)).toEqual(['manifold', 'supply'])
    expect(keysOf(events[2]!)).toEqual(['manifold'])
    expect(keysOf(events[3]!)).toHaveLength(3)
  })
  it('stay as they are in a shipped kind', () => {
    expect(table(true).find('.moves').exists()).toBe(false)
    expect(
      table(true)
        .findAll('input')
        .every((i) => i.attributes('disabled') !== undefined),
    ).toBe(true)
  })
})

describe('what a visit must show', () => {
  const form = () => mount(MustShow, { props: { document: kind, shipped: false, choices } })
  it('is counted for each reason', () =>
    expect(form().findAll('[role=group] button').map(said)).toEqual(['Every visit 1', 'No heat 0']))
  it('is asked for, or no longer, with one touch', async () => {
    const panel = form()
    const [cycles, leak] = panel.findAll('.proof')
    await cycles!.trigger('click')
    await leak!.trigger('click')
    const asked = panel.emitted('change')!.map(([d]) => (d as KindDocument).must_show['every'])
    expect(asked).toEqual([[], ['cycles', 'leak']])
  })
})

describe('the drawing of a kind', () => {
  const path = (name: string) => ({ key: 'gas', name, direction: 'down', stations: ['Supply'] })
  it('is shown with one stage or with two', async () => {
    const check = { problem: null, one_stage: [path('Gas')], two_stages: [path('Gas of two')] }
    const drawing = mount(KindDrawing, { props: { check } })
    expect(said(drawing.get('.path'))).toContain('Gas ↓')
    await drawing.findAll('button')[1]!.trigger('click')
    expect(said(drawing.get('.path'))).toContain('Gas of two')
  })
  it('is none while the document cannot be read', () => {
    const check = { problem: null, one_stage: [], two_stages: [] }
    expect(mount(KindDrawing, { props: { check } }).find('section').exists()).toBe(false)
  })
})
