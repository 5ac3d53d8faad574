import { flushPromises, mount } from '@vue/test-utils'
import { beforeEach, describe, expect, it, vi } from 'vitest'
import { checkBundle } from '@/api/calls'
import { ApiError, type Schemas } from '@/api/client'
import { said } from '@tests/testing/said'
import BundleCheck from '@/features/check/BundleCheck.vue'
import SealedPaper from '@/features/check/SealedPaper.vue'

vi.mock('@/api/calls', () => ({ checkBundle: vi.fn() }))
beforeEach(() => vi.clearAllMocks())

const sealed = (more: Partial<Schemas['SealedOut']> = {}): Schemas['SealedOut'] => ({
  stands: true,
  firm: 'Heating of the valley',
  unit: 'F-2, cellar',
  day: '2026-01-14',
  level: 1,
  title: 'Leave running',
  signed_by: 'T. L.',
  closed_at: '2026-01-14T17:05:00Z',
  zone: 'MST7MDT',
  entries: 31,
  amendments: 0,
  head: 'ab12cd34'.repeat(8),
  key: '0123456789abcdef',
  ...more,
})

describe('a sealed paper', () => {
  const paper = (more = {}) => mount(SealedPaper, { props: { sealed: sealed(more) } })
  it('says everything that can be compared, the digits in groups', () => {
    const words = said(paper())
    for (const part of ['It stands as it was sealed', 'F-2, cellar', '10:05', 'T. L.', '31'])
      expect(words).toContain(part)
    expect(words).toContain(Array(8).fill('ab12cd34').join(' '))
    expect(words).not.toContain('amended')
  })
  it('says that it was amended since', () =>
    expect(said(paper({ amendments: 2 }))).toContain('amended since: 2'))
  it('says plainly when it does not stand', () => {
    const shown = paper({ stands: false })
    expect(said(shown)).toContain('is not what was sealed')
    expect(shown.get('section').classes()).toContain('bad')
  })
})

describe('a bundle', () => {
  const given: Schemas['CheckedOut'] = {
    holds: true,
    flaws: [],
    entries: 3,
    sealed: true,
    ours: true,
  }
  async function after(answer: Partial<Schemas['CheckedOut']> | Error): Promise<string> {
    if (answer instanceof Error) vi.mocked(checkBundle).mockRejectedValue(answer)
    else vi.mocked(checkBundle).mockResolvedValue({ ...given, ...answer })
    const panel = mount(BundleCheck)
    panel.findComponent({ name: 'FileButton' }).vm.$emit('file', new File(['{}'], 'visit.json'))
    await flushPromises()
    return said(panel)
  }
  it('that holds says by whom it was sealed', async () => {
    expect(await after({})).toContain('It holds: 3 entries, sealed by this installation.')
    expect(await after({ ours: false })).toContain('another installation')
    expect(await after({ sealed: false, entries: 1 })).toContain('It holds: 1 entry. Not sealed')
  })
  it('that does not hold says every flaw', async () =>
    expect(await after({ holds: false, flaws: ['Entry 2 differs.'] })).toContain(
      'It does not hold. Entry 2 differs.',
    ))
  it('that is none is answered in its place', async () =>
    expect(await after(new ApiError(422, 'bundle_not_json', 'This file is not JSON.'))).toContain(
      'This file is not JSON.',
    ))
})
