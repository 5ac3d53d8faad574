import { mount } from '@vue/test-utils'
import { describe, expect, it } from 'vitest'
import type { Schemas } from '@/api/client'
import { choices } from '@tests/testing/choices'
import { said } from '@tests/testing/said'
import CodeChartForm from '@/features/shop/CodeChartForm.vue'
import DocumentHead from '@/features/shop/DocumentHead.vue'
import DocumentList from '@/features/shop/DocumentList.vue'
import ManualForm from '@/features/shop/ManualForm.vue'
import ModelBasics from '@/features/shop/ModelBasics.vue'
import PlateForm from '@/features/shop/PlateForm.vue'

describe('the basics of a model', () => {
  const fields = {
    maker: 'Norvane',
    kind: 'rooftop',
    circuit: '',
    fuel: 'NG_H',
    exchanger_cells: 4,
    choices: [
      { key: 'igniter', name: 'Igniter', value: '', options: [{ key: 'spark', name: 'spark' }] },
    ],
  } as unknown as Schemas['ModelFields']
  const form = () => mount(ModelBasics, { props: { fields, choices } })
  it('change one at a time, each by its own name', async () => {
    const panel = form()
    await panel.findAll('input')[0]!.setValue('Ostrel')
    await panel.findAll('input')[1]!.setValue('5')
    expect(panel.emitted('set')).toEqual([[{ maker: 'Ostrel' }], [{ exchanger_cells: 5 }]])
  })
  it('keep the other choices of the plate', async () => {
    const panel = form()
    await panel.findAll('select').at(-1)!.setValue('spark')
    const [changes] = panel.emitted('set')![0] as [{ choices: { value: string }[] }]
    expect(changes.choices.map((row) => row.value)).toEqual(['spark'])
  })
})

describe('the plate', () => {
  const row = (key: string, problem = ''): Schemas['PlateField'] => ({
    key,
    stage: '',
    name: key,
    unit: 'inWC',
    text: '3.5',
    problem,
  })
  it('says what is wrong at the field where it was typed', () => {
    const form = mount(PlateForm, {
      props: { rows: [row('a'), row('b')], checked: [row('a'), row('b', 'Not a pressure.')] },
    })
    expect(form.findAll('.wrong')).toHaveLength(1)
    expect(said(form.get('.wrong'))).toContain('Not a pressure.')
  })
  it('leaves the other fields as they are', async () => {
    const form = mount(PlateForm, { props: { rows: [row('a'), row('b')], checked: [] } })
    await form.findAll('input')[1]!.setValue('3.7 mbar')
    const [rows] = form.emitted('rows')![0] as [Schemas['PlateField'][]]
    expect(rows.map((r) => r.text)).toEqual(['3.5', '3.7 mbar'])
  })
})

describe('the limits of the manual', () => {
  const row = (more = {}): Schemas['ManualField'] => ({
    quantity: 'manifold_pa',
    stage: '',
    low: '3.2',
    high: '3.8',
    page: '12',
    problem: '',
    ...more,
  })
  const form = (checked: Schemas['ManualField'][] = []) =>
    mount(ManualForm, {
      props: {
        rows: [row(), row({ quantity: 'draft_pa' })],
        checked,
        quantities: choices.quantities,
      },
    })
  it('are changed, added and taken out row by row', async () => {
    const panel = form()
    await panel.findAll('input')[1]!.setValue('3.9')
    await panel.findAll('.out')[0]!.trigger('click')
    await panel.get('.btn').trigger('click')
    const [changed, fewer, more] = panel
      .emitted('rows')!
      .map(([rows]) => rows as Schemas['ManualField'][])
    expect(changed![0]!.high).toBe('3.9')
    expect(fewer!.map((r) => r.quantity)).toEqual(['draft_pa'])
    expect(more).toHaveLength(3)
  })
  it('say what is wrong beside the row', () =>
    expect(said(form([row(), row({ problem: 'Least over most.' })]))).toContain('Least over most.'))
})

describe('the code chart', () => {
  it('takes a code, its meaning and the state that it speaks of', async () => {
    const rows = [{ pattern: '2 3', meaning: 'switch', state: '' }]
    const states = [{ key: 'prepurge', name: 'Pre-purge' }]
    const form = mount(CodeChartForm, { props: { rows, states } })
    await form.get('select').setValue('prepurge')
    await form.findAll('input')[0]!.setValue('3 2')
    const given = form.emitted('rows')!.map(([r]) => (r as Schemas['CodeField'][])[0])
    expect(given[0]!.state).toBe('prepurge')
    expect(given[1]!.pattern).toBe('3 2')
  })
})

describe('the list of documents', () => {
  const row = (key: string, shipped: boolean, used: string[] = []) => ({
    key,
    name: key,
    shipped,
    used_by: used,
    changed_at: null,
    changed_by: '',
  })
  const list = {
    documents: [row('a', true), row('b', false, ['F-1', 'F-2'])],
  } as unknown as Schemas['ShopList']
  const nav = () => mount(DocumentList, { props: { list, chosen: 'b' } })
  it('has our own before the shipped ones', () => {
    expect(
      nav()
        .findAll('h2')
        .map((h) => h.text()),
    ).toEqual(['Our own', 'Shipped'])
    expect(nav().findAll('button').map(said)).toEqual(['b F-1, F-2', 'a'])
  })
  it('tells which one is open, and opens another', async () => {
    const panel = nav()
    expect(panel.get('.on').attributes('aria-current')).toBe('true')
    await panel.findAll('button')[1]!.trigger('click')
    expect(panel.emitted('open')).toEqual([['a']])
  })
})

describe('the head of a document', () => {
  const head = (more = {}) =>
    mount(DocumentHead, {
      props: {
        document: { key: 'mine', name: 'Mine' },
        shipped: false,
        kept: false,
        keepable: true,
        why: '',
        ...more,
      },
    })
  const labels = (panel: ReturnType<typeof head>) => panel.findAll('button').map((b) => b.text())
  it('keeps, copies and saves', async () => {
    const panel = head()
    for (const button of panel.findAll('button')) await button.trigger('click')
    expect(Object.keys(panel.emitted()).filter((name) => name !== 'click')).toEqual([
      'copy',
      'keep',
      'save',
    ])
  })
  it('asks why it is changed until it is kept', () => {
    expect(said(head())).toContain('Why it is changed')
    expect(said(head({ kept: true }))).not.toContain('Why it is changed')
  })
  it('offers a shipped one to be copied, never to be kept', () =>
    expect(labels(head({ shipped: true }))).toEqual(['Copy it, to change', 'Save as JSON']))
  it('changes the name and leaves the key', async () => {
    const panel = head()
    await panel.findAll('input')[0]!.setValue('Yours')
    expect(panel.emitted('change')).toEqual([[{ key: 'mine', name: 'Yours' }]])
  })
})
