import { mount } from '@vue/test-utils'
import { expect, it } from 'vitest'
import type { Schemas } from '@/api/client'
import WhyList from '@/ui/WhyList.vue'
import FigureTable from '@/ui/FigureTable.vue'
import LogColumns from '@/features/flue/LogColumns.vue'
import LogQuestions from '@/features/flue/LogQuestions.vue'
import TraceChart from '@/features/flue/TraceChart.vue'

const figure: Schemas['Explained'] = {
  key: 'co_air_free_ppm',
  name: 'CO air-free',
  shown: { text: '67', unit: 'ppm' },
  half_width: '7',
  state: 'in',
  aside: '',
  formula: 'CO × 20.946 / (20.946 − O₂)',
  inputs: [{ name: 'O₂, dry', shown: { text: '6.5', unit: '%' } }],
  source: 'dilution',
  note: 'With the rounded 20.9 %: 66.9 ppm.',
}

it('shows each figure with unit and uncertainty, and can be asked why', async () => {
  const wrapper = mount(FigureTable, { props: { figures: [figure] } })
  expect(wrapper.text()).toContain('67')
  expect(wrapper.text()).toContain('ppm ± 7')
  await wrapper.find('button').trigger('click')
  expect(wrapper.emitted('why')).toEqual([[figure]])
})
it('explains formula, inputs, source and note', () => {
  const text = mount(WhyList, { props: { figure } }).text()
  for (const words of ['CO × 20.946', 'O₂, dry', '6.5 %', 'dilution', 'rounded 20.9'])
    expect(text).toContain(words)
})

const log: Schemas['LogPage'] = {
  id: 'l',
  name: 'a.csv',
  size_bytes: 9,
  instrument: null,
  headers: ['Time', 'A', 'B'],
  time_columns: [0],
  sample: [['10:00', '6.4', '40']],
  described: 'comma between columns',
  columns: [
    { quantity: 'o2_dry_pct', name: 'Flue O₂', column: 1, unit: '%', units: ['%'] },
    { quantity: 'co_ppm_dry', name: 'Flue CO', column: null, unit: 'ppm', units: ['ppm'] },
  ],
  questions: [],
  remembered: false,
  problems: [],
  trace: null,
  means: [],
}
it('sends the columns that are in the log, and only those', async () => {
  const wrapper = mount(LogColumns, { props: { log, busy: false } })
  expect(wrapper.text()).toContain('Proposed from names')
  await wrapper.find('form').trigger('submit')
  expect(wrapper.emitted('map')).toEqual([[{ columns: { o2_dry_pct: { column: 1, unit: '%' } } }]])
})
it('says when the columns are remembered', () =>
  expect(
    mount(LogColumns, { props: { log: { ...log, remembered: true }, busy: false } }).text(),
  ).toContain('confirmed for this instrument'))

const trace: Schemas['TraceOut'] = {
  seconds: [0, 60, 120],
  channels: { o2_dry_pct: [20.9, 8, 6.5] },
  units: { o2_dry_pct: '%' },
  light_off_s: 30,
  steady: { low: 60, high: 120 },
  duration_s: 120,
}
it('marks light-off and the steady window', () => {
  const text = mount(TraceChart, { props: { trace, window: [60, 120] } }).text()
  expect(text).toContain('light-off')
  expect(text).toContain('steady, 1.0 min')
})
it('tells a chosen window from a steady one', () =>
  expect(mount(TraceChart, { props: { trace, window: [10, 40] } }).text()).toContain(
    'chosen, 0.5 min',
  ))

it('asks with a button for each answer, and sends what was chosen', async () => {
  const question: Schemas['LogQuestion'] = {
    about: 'numbers',
    quantity: 'co_ppm_dry',
    column: 2,
    text: 'Flue CO: “1,234” is 1234 with a decimal point, 1.234 with a decimal comma. Which is it?',
    choices: [
      { key: 'point', label: 'decimal point' },
      { key: 'comma', label: 'decimal comma' },
    ],
  }
  const wrapper = mount(LogQuestions, { props: { questions: [question], busy: false } })
  expect(wrapper.text()).toContain('1234 with a decimal point')
  await wrapper.findAll('button')[0]!.trigger('click')
  expect(wrapper.emitted('answer')).toEqual([
    [{ about: 'numbers', quantity: 'co_ppm_dry', column: 2, choice: 'point' }],
  ])
})
