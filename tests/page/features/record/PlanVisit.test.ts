import { flushPromises, mount } from '@vue/test-utils'
import { beforeEach, describe, expect, it, vi } from 'vitest'
import { planVisit } from '@/api/firm'
import { ApiError } from '@/api/client'
import { said } from '@tests/testing/said'
import PlanVisit from '@/features/record/PlanVisit.vue'

const push = vi.fn()
vi.mock('@/api/firm', () => ({ planVisit: vi.fn() }))
vi.mock('vue-router', () => ({ useRouter: () => ({ push }) }))

const shown = () =>
  mount(PlanVisit, {
    props: { unit: 3, zone: 'UTC', reasons: { no_heat: 'No heat', recheck: 'Re-check' } },
  })

describe('planning a visit', () => {
  beforeEach(() => vi.clearAllMocks())

  it('waits for a reason', async () => {
    const panel = shown()
    expect(panel.get('.strong').attributes('disabled')).toBeDefined()
    await panel.findAll('.chip')[1]?.trigger('click')
    expect(panel.get('.strong').attributes('disabled')).toBeUndefined()
  })
  it('of today opens its arrival at once', async () => {
    vi.mocked(planVisit).mockImplementation((_, body) =>
      Promise.resolve({ id: 12, day: body.day, technician: 'T' }),
    )
    const panel = shown()
    await panel.findAll('.chip')[0]?.trigger('click')
    await panel.get('.words input').setValue('Cold since noon')
    expect(panel.get('.strong').text()).toBe('Begin now')
    await panel.get('.strong').trigger('click')
    await flushPromises()
    expect(vi.mocked(planVisit).mock.calls[0]).toMatchObject([
      3,
      { reason: 'no_heat', complaint: 'Cold since noon' },
    ])
    expect(push).toHaveBeenCalledWith('/visits/12/arrival')
  })
  it('of another day says on whose round it stands', async () => {
    vi.mocked(planVisit).mockResolvedValue({
      id: 12,
      day: '2099-03-04',
      technician: 'Tove Lindgarth',
    })
    const panel = shown()
    await panel.findAll('.chip')[1]?.trigger('click')
    await panel.get('input[type=date]').setValue('2099-03-04')
    await panel.get('.strong').trigger('click')
    await flushPromises()
    expect(said(panel)).toMatch(/On the round of Tove Lindgarth, Wednesday,? 4 March 2099\./)
    expect(push).not.toHaveBeenCalled()
    expect(panel.emitted('planned')).toHaveLength(1)
  })
  it('says in place what was refused', async () => {
    vi.mocked(planVisit).mockRejectedValue(
      new ApiError(422, 'visit_day', 'A visit is planned for today or a day to come.'),
    )
    const panel = shown()
    await panel.findAll('.chip')[0]?.trigger('click')
    await panel.get('.strong').trigger('click')
    await flushPromises()
    expect(panel.get('[role=alert]').text()).toContain('today or a day to come')
  })
})
