import type { Schemas } from '@/api/client'

/** Where what was found is looked at. */
export function placeOf(found: Pick<Schemas['FoundOut'], 'sort' | 'id'>): string {
  switch (found.sort) {
    case 'unit':
      return `/units/${found.id}`
    case 'site':
    case 'contact':
      return `/sites/${found.id}`
    case 'visit':
      return `/visits/${found.id}/unit`
    default:
      return `/kept/${found.sort}/${found.id}`
  }
}

export const SORT_NAMES: Record<string, string> = {
  unit: 'Unit',
  site: 'Site',
  contact: 'Contact',
  visit: 'Visit',
  part: 'Part',
  instrument: 'Instrument',
}
