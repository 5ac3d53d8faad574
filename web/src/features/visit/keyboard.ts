import type { Phase } from '@/parts/desk/bar'

export type ViewName =
  'arrival' | 'walk' | 'unit' | 'flue' | 'gas' | 'draft' | 'air' | 'string' | 'exchanger' | 'close'
export const VIEWS: { view: ViewName; name: string; key: string }[] = [
  { view: 'arrival', name: 'Arrival', key: '0' },
  { view: 'walk', name: 'Walk', key: 'w' },
  { view: 'unit', name: 'Unit', key: '1' },
  { view: 'flue', name: 'Flue', key: '2' },
  { view: 'gas', name: 'Gas', key: '3' },
  { view: 'draft', name: 'Draft', key: '4' },
  { view: 'string', name: 'String', key: '5' },
  { view: 'exchanger', name: 'Exchanger', key: '6' },
  { view: 'air', name: 'Air, water', key: '8' },
  { view: 'close', name: 'Close out', key: '7' },
]

export type KeyAction =
  | { kind: 'view'; view: ViewName }
  | { kind: 'phase'; phase: Phase }
  | { kind: 'bar' | 'next' | 'jumpers' | 'theme' | 'keys' }

export const KEYS: [string, string, KeyAction][] = [
  ...VIEWS.map(({ view, name, key }): [string, string, KeyAction] => [
    key,
    name,
    { kind: 'view', view },
  ]),
  ['/', 'to the entry bar', { kind: 'bar' }],
  ['n', 'take the next step offered', { kind: 'next' }],
  ['f', 'as found', { kind: 'phase', phase: 'found' }],
  ['l', 'as left', { kind: 'phase', phase: 'left' }],
  ['j', 'jumpers', { kind: 'jumpers' }],
  ['d', 'daylight or cellar theme', { kind: 'theme' }],
  ['?', 'these keys', { kind: 'keys' }],
]

/** What a key means outside of fields; nothing while somebody types. */
export function actionFor(
  event: Pick<KeyboardEvent, 'key' | 'ctrlKey' | 'metaKey' | 'altKey' | 'target'>,
): KeyAction | null {
  if (event.ctrlKey || event.metaKey || event.altKey) return null
  if (
    event.target instanceof HTMLElement &&
    event.target.closest('input, textarea, select, [contenteditable]')
  )
    return null
  return KEYS.find(([key]) => key === event.key)?.[2] ?? null
}
