import { mount } from '@vue/test-utils'
import { describe, expect, it } from 'vitest'
import type { Schemas } from '@/api/client'
import EvidencePanel from '@/features/exchanger/EvidencePanel.vue'
import ExchangerDrawing from '@/features/exchanger/ExchangerDrawing.vue'
import { lineFor } from '@/features/exchanger/line'

const spot = { part: 'cell 3', zone: 'seam' }
const exchanger = {
  form: 'clamshell',
  name: 'Clamshell',
  width: 148,
  height: 220,
  coverage: [],
  findings: [],
  methods: [],
  surenesses: [],
  sizes: [],
  whole: '',
  parts: [1, 2].map((n) => ({
    key: `cell ${n}`,
    closed: true,
    state: n === 1 ? 'in' : 'none',
    outline: [
      [0, 0],
      [10, 0],
      [10, 10],
    ],
    zones: [{ key: 'seam', x: 20 * n, y: 80 }],
  })),
  placed: [
    { entry_id: 'a', text: 'Soot', place: 'cell 2, seam', detail: '', x: 40, y: 80, level: 3 },
    { entry_id: 'b', text: 'Soot', place: '', detail: '', x: null, y: null, level: 3 },
  ],
} as unknown as Schemas['ExchangerOut']
const evidence: Schemas['EvidenceOut'] = {
  says: 'Odds of a breach: 1 in 5',
  prior: '24 years old: about 1 in 20',
  state: 'near',
  source: 'judgement',
  signs: [
    { text: 'Soot', weight: '× 2.5', against: false },
    { text: 'Seen', weight: '÷ 2.5', against: true },
  ],
  looks: [
    {
      text: 'See every part',
      minutes: 12,
      starter: 'exchanger ok ',
      if_found: '95 %',
      if_not: '1 in 40',
    },
  ],
}

describe('a finding on the exchanger', () => {
  it('is written with what was said, and without what was not', () => {
    expect(lineFor('found crack', spot, { size: '10 mm', method: 'borescope', sure: 'sure' })).toBe(
      'found crack cell 3 seam 10 mm by borescope sure',
    )
    expect(lineFor('found soot', spot, { size: '', method: '', sure: '' })).toBe(
      'found soot cell 3 seam',
    )
  })
  it('begins at a touched place, which a key reaches too', async () => {
    const drawing = mount(ExchangerDrawing, { props: { exchanger, chosen: null, writable: true } })
    await drawing.findAll('[data-zone]')[1]?.trigger('click')
    await drawing.findAll('[data-zone]')[0]?.trigger('keydown', { key: 'Enter' })
    expect(drawing.emitted('spot')).toEqual([
      [{ part: 'cell 2', zone: 'seam' }],
      [{ part: 'cell 1', zone: 'seam' }],
    ])
  })
  it('cannot be placed on a closed visit', async () => {
    const drawing = mount(ExchangerDrawing, { props: { exchanger, chosen: null, writable: false } })
    await drawing.find('[data-zone]').trigger('click')
    expect(drawing.emitted('spot')).toBeUndefined()
  })
  it('is marked where its place is known, and nowhere else', () => {
    expect(
      mount(ExchangerDrawing, { props: { exchanger, chosen: null, writable: true } }).findAll(
        '.mark-at',
      ),
    ).toHaveLength(1)
  })
})

describe('the evidence', () => {
  it('shows each sign with its weight, and what a look would make of it', async () => {
    const panel = mount(EvidencePanel, { props: { evidence, writable: true } })
    for (const words of ['1 in 5', '× 2.5', '÷ 2.5', '95 %', '1 in 40', '12 min'])
      expect(panel.text()).toContain(words)
    await panel.find('.look').trigger('click')
    expect(panel.emitted('begin')).toEqual([['exchanger ok ']])
  })
})
