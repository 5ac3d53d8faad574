import type { Schemas } from '@/api/client'

/** The rules as they stand in the form. */
export interface Draft {
  name: string
  answers: Record<string, string>
  limits: Record<string, number>
}

/** The form of the rules that the firm has. */
export function draftOf(house: Schemas['HouseRulesOut']): Draft {
  return {
    name: house.name,
    answers: Object.fromEntries(house.questions.map((question) => [question.key, question.chosen])),
    limits: Object.fromEntries(house.limits.map((limit) => [limit.key, limit.value])),
  }
}

/** What in the form is not as the firm has it. */
export function changesOf(
  house: Schemas['HouseRulesOut'],
  draft: Draft,
): Record<string, string | number> {
  const before = draftOf(house)
  const entries = [
    ...Object.entries(draft.answers).filter(([key, answer]) => before.answers[key] !== answer),
    ...Object.entries(draft.limits).filter(([key, value]) => before.limits[key] !== value),
  ]
  return Object.fromEntries(
    draft.name === house.name ? entries : [...entries, ['name', draft.name]],
  )
}

/** The form as a preset fills it; answers that the form does not have are left out. */
export function presetDraft(draft: Draft, preset: Schemas['PresetOut']): Draft {
  const given = preset.rules as Record<string, string | number>
  const filled = <T>(names: object, as: (value: unknown) => T) =>
    Object.fromEntries(Object.keys(names).map((name) => [name, as(given[name])]))
  return {
    name: preset.name,
    answers: filled(draft.answers, String),
    limits: filled(draft.limits, Number),
  }
}
