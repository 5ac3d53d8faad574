import { flushPromises, mount } from '@vue/test-utils'
import { beforeEach, describe, expect, it, vi } from 'vitest'
import { defineComponent, h, ref } from 'vue'
import { tryHouse } from '@/api/calls'
import type { Schemas } from '@/api/client'
import { said } from '@tests/testing/said'
import { presetDraft, type Draft } from '@/features/house/draft'
import DryRunPanel from '@/features/house/DryRunPanel.vue'
import RuleQuestions from '@/features/house/RuleQuestions.vue'
import { useDryRun, type UseDryRunReturn } from '@/features/house/useDryRun'

vi.mock('@/api/calls', () => ({ tryHouse: vi.fn() }))
const draft: Draft = { name: 'common', answers: { jumpers: 'none' }, limits: { co: 100 } }
const house = {
  questions: [
    {
      key: 'jumpers',
      name: 'Jumpers',
      chosen: 'none',
      answers: [
        { key: 'none', reason: 'No jumper at all.' },
        { key: 'logged', reason: 'Logged, and out again.' },
      ],
    },
  ],
  limits: [{ key: 'co', name: 'CO air-free', value: 100, least: 50, most: 400, unit: 'ppm' }],
} as unknown as Schemas['HouseRulesOut']
const found = (more = {}): Schemas['DryRunOut'] => ({
  looked_at: 50,
  by_rule: { jumpers: 3 },
  changed: [],
  ...more,
})

describe('the questions', () => {
  const form = (given: Schemas['DryRunOut'] | null = null) =>
    mount(RuleQuestions, { props: { house, found: given, modelValue: draft } })
  it('show every answer with its reason, and which one holds today', () => {
    expect(form().findAll('input[type=radio]')).toHaveLength(2)
    expect(said(form().get('.on'))).toContain('No jumper at all. today')
  })
  it('say what one answer alone would change', () =>
    expect(said(form(found()))).toContain('alone changes 3 of 50'))
  it('leave the draft that they were given as it is', async () => {
    const panel = form()
    await panel.findAll('input[type=radio]')[1]!.trigger('change')
    await panel.get('input[type=number]').setValue('200')
    const [answered, limited] = panel.emitted('update:modelValue')!.map(([d]) => d as Draft)
    expect(answered!.answers).toEqual({ jumpers: 'logged' })
    expect(limited!.limits).toEqual({ co: 200 })
    expect(draft).toEqual({ name: 'common', answers: { jumpers: 'none' }, limits: { co: 100 } })
  })
  it('show a limit with its unit and how far it may go', () =>
    expect(said(form().get('.limit'))).toContain('ppm 50 to 400'))
})

describe('a preset', () => {
  it('fills the answers that the form has, as text and as numbers', () => {
    const preset = { name: 'strict', rules: { jumpers: 'logged', co: 50, other: 'x' } } as never
    expect(presetDraft(draft, preset)).toEqual({
      name: 'strict',
      answers: { jumpers: 'logged' },
      limits: { co: 50 },
    })
  })
})

describe('the dry run', () => {
  it('says which visits would differ, and how', () => {
    const row = {
      id: 7,
      unit: 'F-1',
      day: '2026-01-14',
      before: 1,
      after: 3,
      before_title: 'Leave running',
      after_title: 'Do not leave running yet',
      says: ['Also to show: leak check'],
    }
    const global = { stubs: { RouterLink: { template: '<a><slot /></a>' } } }
    const text = said(mount(DryRunPanel, { props: { found: found({ changed: [row] }) }, global }))
    expect(text).toContain('1 of the last 50 visits would differ')
    expect(text).toContain('Leave running → Do not leave running yet')
    expect(text).toContain('Also to show: leak check')
  })
})

describe('trying rules', () => {
  const rules = ref<Record<string, string>>({ jumpers: 'none' })
  const differs = ref(false)
  const hosts: { unmount: () => void }[] = []
  function tried(): UseDryRunReturn {
    let given: UseDryRunReturn | undefined
    const Host = defineComponent(() => {
      given = useDryRun(
        () => rules.value,
        () => differs.value,
      )
      return () => h('i')
    })
    hosts.push(mount(Host))
    return given!
  }
  beforeEach(() => {
    vi.useFakeTimers()
    vi.mocked(tryHouse).mockReset().mockResolvedValue(found())
    rules.value = { jumpers: 'none' }
    differs.value = false
    return () => {
      hosts.splice(0).forEach((host) => host.unmount())
      vi.useRealTimers()
    }
  })
  it('asks once, a moment after the last change', async () => {
    const dry = tried()
    differs.value = true
    for (const answer of ['logged', 'attended', 'logged']) {
      rules.value = { jumpers: answer }
      await vi.advanceTimersByTimeAsync(100)
    }
    await vi.advanceTimersByTimeAsync(600)
    await flushPromises()
    expect(vi.mocked(tryHouse).mock.calls).toEqual([[{ jumpers: 'logged' }]])
    expect(dry.found.value?.looked_at).toBe(50)
  })
  it('forgets what it found when all is as it was', async () => {
    const dry = tried()
    differs.value = true
    rules.value = { jumpers: 'logged' }
    await vi.advanceTimersByTimeAsync(600)
    await flushPromises()
    differs.value = false
    rules.value = { jumpers: 'none' }
    await vi.advanceTimersByTimeAsync(600)
    expect(dry.found.value).toBeNull()
    expect(tryHouse).toHaveBeenCalledTimes(1)
  })
  it('says what was refused', async () => {
    vi.mocked(tryHouse).mockRejectedValue(new Error('line is down'))
    const dry = tried()
    differs.value = true
    rules.value = { jumpers: 'logged' }
    await vi.advanceTimersByTimeAsync(600)
    await flushPromises()
    expect(dry.trouble.value).toContain('line is down')
  })
})
