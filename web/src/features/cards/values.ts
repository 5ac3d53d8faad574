import type { Schemas } from '@/api/client'

export type CardValue = string | number | string[] | null
export type CardValues = Record<string, CardValue>

/** A form's beginning: what a card says, or nothing. */
export function beginning(fields: Schemas['FieldOut'][], of: Record<string, unknown>): CardValues {
  return Object.fromEntries(
    fields.map((field) => [
      field.key,
      (of[field.key] as CardValue | undefined) ?? (field.sort === 'choices' ? [] : ''),
    ]),
  )
}

/** What differs from the beginning: only that is sent, so that nobody writes over what they did not touch. */
export function changed(before: CardValues, after: CardValues): CardValues {
  return Object.fromEntries(
    Object.entries(after).filter(
      ([key, value]) => String(value ?? '') !== String(before[key] ?? ''),
    ),
  )
}
