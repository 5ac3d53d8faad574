import { mount } from '@vue/test-utils'
import { describe, expect, it } from 'vitest'
import { said } from '@tests/testing/said'
import TextInput from '@/ui/TextInput.vue'
import Card from '@/ui/Card.vue'
import ChipRow from '@/ui/ChipRow.vue'
import FileButton from '@/ui/FileButton.vue'
import FigureTable from '@/ui/FigureTable.vue'
import ScaleBar from '@/ui/ScaleBar.vue'
import WhyList from '@/ui/WhyList.vue'
import { longDay, shortDay } from '@/ui/moments'
import type { Schemas } from '@/api/client'

const figure = (more: Partial<Schemas['Explained']> = {}): Schemas['Explained'] => ({
  key: 'rise',
  name: 'Rise',
  shown: { text: '49', unit: '°F' },
  half_width: '2',
  state: 'in',
  aside: '',
  formula: 'supply − return',
  inputs: [{ name: 'Supply air', shown: { text: '120', unit: '°F' } }],
  source: 'plate',
  note: '',
  ...more,
})

describe('Card', () => {
  it('has a heading of the second order, with a lighter aside', () => {
    const card = mount(Card, { props: { title: 'Parts', aside: 'two' }, slots: { default: 'x' } })
    expect(card.get('h2').text()).toContain('Parts')
    expect(card.get('h2 span').text()).toBe('two')
  })
  it('has no empty heading', () => expect(mount(Card).find('h2').exists()).toBe(false))
})

describe('ChipRow', () => {
  const options = [
    { key: 'a', name: 'First' },
    { key: 'b', name: 'Second' },
  ]
  const row = () => mount(ChipRow, { props: { label: 'State', options, chosen: 'b' } })
  it('tells which one is chosen, and to a reader too', () => {
    const pressed = row()
      .findAll('button')
      .map((b) => b.attributes('aria-pressed'))
    expect(pressed).toEqual(['false', 'true'])
    expect(row().attributes('aria-label')).toBe('State')
  })
  it('gives the key of what is touched', async () => {
    const chips = row()
    await chips.findAll('button')[0]!.trigger('click')
    expect(chips.emitted('choose')).toEqual([['a']])
  })
})

describe('FileButton', () => {
  const button = (disabled = false) =>
    mount(FileButton, { props: { accept: '.csv', disabled }, slots: { default: 'Take it' } })
  async function pick(wrapper: ReturnType<typeof button>, file?: File): Promise<void> {
    const input = wrapper.get('input')
    const files = file ? [file] : []
    Object.defineProperty(input.element, 'files', { value: files, configurable: true })
    await input.trigger('change')
  }
  it('gives the file, the same one twice in a row', async () => {
    const wrapper = button()
    const file = new File(['x'], 'x.csv')
    await pick(wrapper, file)
    await pick(wrapper, file)
    expect(wrapper.emitted('file')).toEqual([[file], [file]])
  })
  it('gives nothing when nothing was picked', async () => {
    const wrapper = button()
    await pick(wrapper)
    expect(wrapper.emitted('file')).toBeUndefined()
  })
  it('takes none while it is off', () =>
    expect(button(true).get('input').attributes('disabled')).toBeDefined())
})

describe('FigureTable', () => {
  it('puts a word beside its figure and a sentence under it', () => {
    const long = 'read while the blower still ramped up'
    const table = mount(FigureTable, {
      props: { figures: [figure({ aside: 'steady' }), figure({ key: 'x', aside: long })] },
    })
    expect(table.findAll('.aside').map((a) => a.text())).toEqual(['steady', ''])
    expect(table.get('.says').text()).toBe(long)
  })
  it('asks why with the figure', async () => {
    const asked = figure()
    const table = mount(FigureTable, { props: { figures: [asked] } })
    await table.get('button').trigger('click')
    expect(table.emitted('why')).toEqual([[asked]])
  })
})

describe('ScaleBar', () => {
  const scale = { band_from: 0.2, band_to: 0.8, value: 0.5, found: null }
  it('lays band and mark where the core says', () => {
    const bar = mount(ScaleBar, { props: { scale, state: 'in' } })
    expect(bar.get('.band').attributes('style')).toContain('left: 20%')
    expect(bar.get('.value').attributes('style')).toContain('left: 50%')
    expect(bar.find('.found').exists()).toBe(false)
  })
  it('shows where it was as found', () => {
    const bar = mount(ScaleBar, { props: { scale: { ...scale, found: 0.1 }, state: 'in' } })
    expect(bar.get('.found').attributes('style')).toContain('left: 10%')
  })
})

describe('WhyList', () => {
  it('says formula, numbers, source and note', () => {
    const text = said(mount(WhyList, { props: { figure: figure({ note: 'guidance' }) } }))
    for (const words of [
      'Rise 49 °F ± 2',
      'supply − return',
      'Supply air 120 °F',
      'Source: plate',
      'guidance',
    ])
      expect(text).toContain(words)
  })
  it('says nothing of accuracy where there is none', () =>
    expect(mount(WhyList, { props: { figure: figure({ half_width: '' }) } }).text()).not.toContain(
      '±',
    ))
})

describe('days', () => {
  it('are long in a sentence and short in a table', () => {
    expect(longDay('2026-01-14')).toMatch(/^Wednesday,? 14 January 2026$/)
    expect(shortDay('2026-01-14')).toBe('14 Jan 2026')
  })
})

describe('a field that is handed over when it is left', () => {
  const shown = (value: string) => mount(TextInput, { props: { value } })
  it('keeps what is being typed when an answer from elsewhere draws it anew', async () => {
    const field = shown('65')
    const input = field.get('input')
    input.element.value = 'warm'
    await input.trigger('input')
    await field.setProps({ value: '64' })
    expect(input.element.value).toBe('warm')
  })
  it('shows what was made of it once it was left', async () => {
    const field = shown('65')
    const input = field.get('input')
    input.element.value = '36 K'
    await input.trigger('input')
    await input.trigger('change')
    await field.setProps({ value: '65 °F' })
    expect(field.emitted('change')).toHaveLength(1)
    expect(input.element.value).toBe('65 °F')
  })
})
