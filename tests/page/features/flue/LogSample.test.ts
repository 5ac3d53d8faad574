import { mount } from '@vue/test-utils'
import { expect, it } from 'vitest'
import type { Schemas } from '@/api/client'
import { said } from '@tests/testing/said'
import LogSample from '@/features/flue/LogSample.vue'

it('says above each column what it is read as: time, quantity, asked, or nothing', () => {
  const log = {
    headers: ['Time', 'O2', 'CO', 'Note'],
    sample: [['10:00', '6.4', '1.234', 'x']],
    time_columns: [0],
    columns: [{ column: 1, name: 'Flue O₂', unit: '%' }],
    questions: [{ column: 2 }],
  } as unknown as Schemas['LogPage']
  const read = mount(LogSample, { props: { log } }).findAll('.read th')
  expect(read.map(said)).toEqual(['time', 'Flue O₂, %', 'asked', '–'])
})
