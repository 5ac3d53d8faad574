import { mount } from '@vue/test-utils'
import { describe, expect, it } from 'vitest'
import type { Schemas } from '@/api/client'
import { said as read } from '@tests/testing/said'
import { completions } from '@/features/entry/completions'
import LineField from '@/features/entry/LineField.vue'
import SaidBack from '@/features/entry/SaidBack.vue'

const understood = (more: Partial<Schemas['ReadBack']> = {}): Schemas['ReadBack'] => ({
  echo: [],
  dangers: [],
  problems: [],
  asks: [],
  chips: [],
  unread: [],
  offers_note: false,
  doubts: [],
  read_with: [],
  writable: true,
  station: '',
  phase: 'found',
  stage: 'only',
  ...more,
})
const back = (more: Partial<Schemas['ReadBack']> = {}, props = {}) =>
  mount(SaidBack, {
    props: { said: understood(more), text: 'found soot', silent: false, correcting: '', ...props },
  })

describe('what is said back', () => {
  it('is nothing while nothing is typed', () => expect(back().find('.said').exists()).toBe(false))
  it('says the whole meaning, a danger with its first step, a doubt beside it', () => {
    const panel = back({
      echo: ['Vent: disconnected', 'Rise 3 °F'],
      dangers: [{ entry: 0, first: 'Shut it down and tag it' }],
      doubts: ['Rise is far from what is likely here'],
    })
    expect(read(panel.get('.danger'))).toContain(
      'Vent: disconnected First: Shut it down and tag it.',
    )
    expect(read(panel)).toContain('Rise is far from what is likely here')
  })
  it('names the piece that is not known, and what may have been meant', async () => {
    const problem = {
      piece: 'sooot',
      text: '“sooot” is not a word I know here.',
      meanings: [{ line: 'found soot', meaning: 'Heat exchanger: sooted' }],
    }
    const panel = back({ problems: [problem], writable: false })
    expect(read(panel)).toContain('found soot – Heat exchanger: sooted')
    await panel.get('.word').trigger('click')
    expect(panel.emitted('take')).toEqual([['found soot']])
  })
  it('asks back with whole lines to choose', async () => {
    const ask = { question: 'Which stage?', choices: ['mp 3.5 lo', 'mp 3.5 hi'] }
    const panel = back({ asks: [ask] })
    await panel.findAll('.word')[1]!.trigger('click')
    expect(panel.emitted('choose')).toEqual([['mp 3.5 hi']])
  })
  it('skips no word: what nothing used is shown, and can be kept as a note', async () => {
    const panel = back({ unread: ['gurgles'], offers_note: true }, { text: ' it gurgles ' })
    expect(read(panel)).toContain('Not understood: “gurgles”.')
    await panel.get('.word').trigger('click')
    expect(panel.emitted('choose')).toEqual([['note it gurgles']])
  })
  it('offers the note once', () => {
    const ask = { question: 'What about it?', choices: ['note it gurgles'] }
    expect(back({ asks: [ask], offers_note: true }).findAll('.word')).toHaveLength(1)
  })
  it('says that the line is kept while the server is silent', () =>
    expect(read(back({}, { silent: true }))).toContain('Enter keeps the line on this tablet'))
  it('does not speak of silence before anything is typed', () =>
    expect(back({}, { silent: true, text: '' }).find('.said').exists()).toBe(false))
  it('tells what is being corrected, and leaves it at a touch', async () => {
    const panel = back({}, { correcting: 'Manifold 3.5 inWC' })
    expect(read(panel)).toContain('Correcting “Manifold 3.5 inWC”.')
    await panel.get('.word').trigger('click')
    expect(panel.emitted('leave')).toHaveLength(1)
  })
})

describe('the field', () => {
  const field = (more = {}) =>
    mount(LineField, {
      props: {
        modelValue: '',
        wrong: false,
        writable: true,
        letters: true,
        list: 'l',
        open: false,
        active: -1,
        ...more,
      },
    })
  it('gives what is typed', async () => {
    const line = field()
    await line.get('input').setValue('room 0')
    expect(line.emitted('update:modelValue')).toEqual([['room 0']])
  })
  it('calls no keyboard up where the keypad is', () => {
    expect(field({ letters: false }).get('input').attributes('inputmode')).toBe('none')
    expect(field().get('input').attributes('inputmode')).toBe('text')
  })
  it('takes nothing on a visit that is only read', () =>
    expect(field({ writable: false }).get('input').attributes('disabled')).toBeDefined())
  it('gives every key on, and says which option is chosen', async () => {
    const line = field({ open: true, active: 1 })
    await line.get('input').trigger('keydown.esc')
    expect(line.emitted('press')).toHaveLength(1)
    expect(line.get('input').attributes('aria-activedescendant')).toBe('l-1')
  })
})

describe('what the line may become', () => {
  const word = (line: string, level = 2) => ({ line, text: line, short: line, station: '', level })
  const part = (more: object) => ({
    key: 'p',
    name: 'P',
    path: '',
    usual: false,
    found: [],
    done: [],
    jumpers: [],
    beside: [],
    ...more,
  })
  const words = {
    paths: [],
    elsewhere: [],
    parts: [
      part({
        found: [word('found flame rod dirty'), word('found flame rod ok', 0)],
        done: [word('did clean flame rod')],
      }),
      part({ found: [word('found vent wet')], jumpers: [word('jump limit')] }),
    ],
  }
  const lines = (typed: string) => completions(typed, words).map((one) => one.line)
  it('is what every typed word begins, in their order', () => {
    expect(lines('fl ro di')).toEqual(['flame rod dirty'])
    expect(lines('cl')).toEqual(['clean flame rod'])
  })
  it('is never that something is in order', () => expect(lines('fl ro ok')).toEqual([]))
  it('leaves the clauses before it as they are', () =>
    expect(lines('o2 6.4, ve')).toEqual(['o2 6.4, vent wet']))
  it('is nothing for a number, a letter or the line itself', () => {
    expect(lines('6.4')).toEqual([])
    expect(lines('f')).toEqual([])
    expect(lines('vent wet')).toEqual([])
  })
})
