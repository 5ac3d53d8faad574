import type { FromTrace, Pending } from './store'

const TRACES: Record<FromTrace['what'], string> = {
  log_means: 'Means of a log',
  means: 'Means of a trace',
  dips: 'The worst of a trace',
  step: 'O₂ step of a trace',
}

/** What an item says, for whoever looks at what waits. */
export function saidIn(item: Pending): string {
  switch (item.kind) {
    case 'line':
      return item.text
    case 'correction':
      return item.text === null ? `Strike “${item.said}”` : `“${item.said}” corrected: ${item.text}`
    case 'photo':
      return item.station ? `Photo, ${item.station}` : 'Photo'
    case 'closing':
      return `Close, signed: ${item.body.signed_by}`
    case 'trace':
      return TRACES[item.what]
    case 'marks':
      return item.marks.length === 1 ? '1 mark on a photo' : `${item.marks.length} marks on a photo`
  }
}

/** The words that go back into the bar to be entered anew; '' where nothing was typed. */
export const typedIn = (item: Pending): string =>
  item.kind === 'line' || item.kind === 'correction' ? (item.text ?? '') : ''
