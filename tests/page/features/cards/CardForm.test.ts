import { flushPromises, mount } from '@vue/test-utils'
import { VueQueryPlugin } from '@tanstack/vue-query'
import { describe, expect, it, vi } from 'vitest'
import { ApiError, type Schemas } from '@/api/client'
import CardForm from '@/features/cards/CardForm.vue'

const field = (key: string, sort: string, more: Partial<Schemas['FieldOut']> = {}) => ({
  key,
  label: key,
  sort,
  required: false,
  most: 120,
  unit: '',
  hint: '',
  choices: [],
  ...more,
})
const sort: Schemas['SortOut'] = {
  key: 'site',
  name: 'Site',
  many: 'Sites',
  fields: [
    field('name', 'text', { required: true }),
    field('altitude_m', 'number', { unit: 'ft' }),
    field('zone', 'choice', { choices: [{ key: 'UTC', name: 'UTC' }] }),
    field('around', 'choices', {
      choices: [
        { key: 'damp', name: 'damp' },
        { key: 'dust', name: 'dust' },
      ],
    }),
    field('until', 'date'),
  ],
  may_write: true,
  may_make: true,
  may_retire: true,
  may_merge: true,
  count: 1,
}
const values = { name: 'Weir House', altitude_m: 5050, zone: '', around: ['damp'], until: null }

function form(keep: (values: object, reason: string) => Promise<void>, fresh = false) {
  return mount(CardForm, {
    props: { sort, values, fresh, keep },
    global: { plugins: [VueQueryPlugin] },
  })
}
const refused = (code: string, fields: Record<string, string>) =>
  vi.fn().mockRejectedValue(new ApiError(code === 'fields' ? 422 : 409, code, 'No.', [], fields))

describe('the form of a card', () => {
  it('sends what was touched, with why', async () => {
    const keep = vi.fn().mockResolvedValue(undefined)
    const shown = form(keep)
    expect(shown.get('button').attributes('disabled')).toBeDefined()
    await shown.get('input[name=name]').setValue('Weir House, old')
    await shown.findAll('.many input')[1]!.setValue(true)
    await shown.get('select').setValue('UTC')
    await shown.get('input[type=date]').setValue('2030-01-31')
    await shown.get('input[name=reason]').setValue('renamed')
    await shown.get('form').trigger('submit')
    await flushPromises()
    expect(keep).toHaveBeenCalledWith(
      { name: 'Weir House, old', zone: 'UTC', around: ['damp', 'dust'], until: '2030-01-31' },
      'renamed',
    )
  })

  it('says what cannot be at its field, and keeps what was typed', async () => {
    const shown = form(refused('fields', { altitude_m: '“high” is no number.' }), true)
    await shown.get('input[name=altitude_m]').setValue('high')
    await shown.get('form').trigger('submit')
    await flushPromises()
    const items = shown.findAll('.n-form-item')
    expect(items[1]!.text()).toContain('“high” is no number.')
    expect(items[0]!.text()).not.toContain('no number')
    expect(shown.get<HTMLInputElement>('input[name=altitude_m]').element.value).toBe('high')
    expect(shown.get('[role=alert]').text()).toBe('No.')
  })

  it('shows what somebody else changed, takes it where nobody typed, and leaves what was typed', async () => {
    const shown = form(refused('card_moved', { name: 'name is “Mill” now, by Odo.' }))
    await shown.get('input[name=name]').setValue('Mine')
    await shown.get('form').trigger('submit')
    await flushPromises()
    expect(shown.get('.moved').text()).toContain('“Mill” now, by Odo')
    await shown.setProps({ values: { ...values, name: 'Mill', altitude_m: 5100 } })
    expect(shown.get<HTMLInputElement>('input[name=name]').element.value).toBe('Mine')
    expect(shown.get<HTMLInputElement>('input[name=altitude_m]').element.value).toBe('5100')
  })
})
