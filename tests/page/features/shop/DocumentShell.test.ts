import { mount } from '@vue/test-utils'
import { describe, expect, it } from 'vitest'
import type { Schemas } from '@/api/client'
import DocumentShell from '@/features/shop/DocumentShell.vue'

const choices = {
  kinds: [],
  families: [],
  quantities: [],
  proofs: [],
  reasons: [],
  fuels: [],
  unit_kinds: [],
  circuits: [],
}
const list: Schemas['ShopList'] = {
  sort: 'kind',
  choices,
  writable: true,
  documents: [
    {
      key: 'rooftop',
      name: 'Rooftop unit',
      shipped: true,
      used_by: ['RT-1', 'RT-2'],
      changed_at: null,
      changed_by: '',
    },
    {
      key: 'ours',
      name: 'Ours',
      shipped: false,
      used_by: [],
      changed_at: '2026-01-01T00:00:00Z',
      changed_by: 'Wenna Harrowick',
    },
  ],
}
const props = {
  list,
  document: { key: 'ours', name: 'Ours' },
  json: '{"key":"ours"}',
  shipped: false,
  kept: false,
  trouble: '',
  problem: null,
  none: 'Choose one.',
  why: '',
  locked: 'only a supervisor keeps it.',
}
const button = (wrapper: ReturnType<typeof mount>, text: string) =>
  wrapper.findAll('button').find((b) => b.text() === text)

describe('a document of the shop', () => {
  it('tells own from shipped, and who hangs on it', () => {
    const text = mount(DocumentShell, { props }).find('nav').text()
    expect(text.indexOf('Ours')).toBeLessThan(text.indexOf('Rooftop unit'))
    expect(text).toContain('RT-1, RT-2')
  })
  it('keeps nothing while something is wrong', async () => {
    const wrapper = mount(DocumentShell, { props })
    expect(button(wrapper, 'Keep it')!.attributes('disabled')).toBeUndefined()
    await wrapper.setProps({
      problem: { code: 'kind_form', text: 'Two stations are called a.', element: 'a' },
    })
    expect(button(wrapper, 'Keep it')!.attributes('disabled')).toBeDefined()
    expect(wrapper.find('[role=alert]').text()).toContain('Two stations')
  })
  it('offers a shipped one to be copied only', async () => {
    const wrapper = mount(DocumentShell, { props: { ...props, shipped: true } })
    expect(button(wrapper, 'Keep it')).toBeUndefined()
    await button(wrapper, 'Copy it, to change')!.trigger('click')
    expect(wrapper.emitted('copy')).toHaveLength(1)
  })
  it('answers text that is not valid JSON and leaves the document alone', async () => {
    const wrapper = mount(DocumentShell, { props })
    const field = wrapper.find('textarea')
    await field.setValue('{ key: ours')
    await field.trigger('change')
    expect(wrapper.text()).toContain('This is not valid JSON')
    expect(wrapper.emitted('take')).toBeUndefined()
  })
  it('says who may keep it to those who may not', () => {
    const wrapper = mount(DocumentShell, {
      props: { ...props, list: { ...list, writable: false } },
    })
    expect(wrapper.text()).toContain('only a supervisor keeps it.')
    expect(button(wrapper, 'Keep it')!.attributes('disabled')).toBeDefined()
  })
})
