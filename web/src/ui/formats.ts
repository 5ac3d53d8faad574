import { shallowRef } from 'vue'

/** How the firm writes days, clock and numbers. */
export interface Formats {
  days: 'day_month' | 'month_day' | 'year_first'
  clock: '24' | '12'
  decimal: 'point' | 'comma'
}

const USUAL: Formats = { days: 'day_month', clock: '24', decimal: 'point' }

/** The formats of the firm of whoever is signed in; set once it is known who that is. */
export const formats = shallowRef<Formats>(USUAL)

/** A number with so many decimals, a true minus sign, and the firm's decimal mark. */
export function fixed(value: number, decimals: number): string {
  const written = value
    .toFixed(decimals)
    .replace(/^-(?=[0.]*$)/, '')
    .replace('-', '−')
  return formats.value.decimal === 'comma' ? written.replace('.', ',') : written
}
