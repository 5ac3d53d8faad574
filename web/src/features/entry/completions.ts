import type { Schemas } from '@/api/client'

type Word = Schemas['WordOut']
const LEAST_LETTERS = 2
const MOST_SHOWN = 5
const CLAUSE = /^(.*[,;]\s*)?(.*)$/s

/** A line that what is typed may become: its text, and what it means. */
export interface Completion {
  line: string
  text: string
}

/** The words of a picked line without the verb that the bar does not need. */
const plain = (line: string) => line.replace(/^(found|did) /, '')

/** Whether every typed word begins one of the words, in their order. */
function fits(typed: string[], words: string[]): boolean {
  let at = 0
  for (const word of typed) {
    const found = words.findIndex((one, index) => index >= at && one.startsWith(word))
    if (found < 0) return false
    at = found + 1
  }
  return true
}

/**
 * What the clause that is typed just now may become: parts and conditions of this unit, what can be done, jumpers.
 * Clauses before it stay as they are.
 */
export function completions(typed: string, words: Schemas['Vocabulary'] | undefined): Completion[] {
  const [, before = '', clause = ''] = CLAUSE.exec(typed) ?? []
  const said = clause.toLowerCase().split(/\s+/).filter(Boolean)
  if (!words || said.join('').length < LEAST_LETTERS || /^[^a-z]/i.test(clause.trim())) return []
  const all: Word[] = words.parts.flatMap((part) => [
    ...part.found.filter((row) => row.level > 0), // that something is in order is said, never offered
    ...part.done,
    ...part.jumpers,
  ])
  return all
    .filter(
      (row) => !row.line.endsWith(' ') && fits(said, plain(row.line).toLowerCase().split(' ')),
    )
    .filter((row) => plain(row.line).toLowerCase() !== said.join(' '))
    .sort((a, b) => plain(a.line).length - plain(b.line).length)
    .slice(0, MOST_SHOWN)
    .map((row) => ({ line: before + plain(row.line), text: row.text }))
}
