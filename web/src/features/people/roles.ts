import type { Schemas } from '@/api/client'

type Role = Schemas['MemberOut']['role']

/** The roles as they are offered, with what each may do. */
export const ROLES: { key: Role; name: string; may: string }[] = [
  { key: 'technician', name: 'Technician', may: 'visits, readings, closing' },
  {
    key: 'supervisor',
    name: 'Supervisor',
    may: 'as a technician; house rules, the shop, milder standings',
  },
  { key: 'office', name: 'Office', may: 'reads everything, plans visits, makes links' },
  { key: 'administrator', name: 'Administrator', may: 'as a supervisor; people and their rights' },
]
