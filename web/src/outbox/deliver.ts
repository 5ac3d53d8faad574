import {
  closeVisit,
  correct,
  markPhoto,
  sendPhoto,
  writeCaptureMeans,
  writeDips,
  writeLine,
  writeMeans,
  writeStep,
} from '@/api/calls'
import type { Schemas } from '@/api/client'
import { deviceName, localIso } from './device'
import type { FromTrace, Pending } from './store'

/** Sends one item under its own id; sent twice, it is written once. Gives the visit as it stands then. */
export function deliver(item: Pending, patience: number): Promise<Schemas['VisitPage']> {
  const { id, visit, at } = item
  const sent = { id, at, sent_at: localIso(new Date()), device: deviceName() }
  switch (item.kind) {
    case 'line': {
      const { text, stage, phase } = item
      return writeLine(visit, { ...sent, text, stage, phase, as_note: false }, patience)
    }
    case 'correction': {
      const { corrects, text, why } = item
      return correct(visit, { ...sent, corrects, text, why }, patience)
    }
    case 'photo':
      return sendPhoto(visit, item.file, { id, at, station: item.station })
    case 'marks':
      return markPhoto(item.photo, item.marks, patience)
    case 'closing':
      return closeVisit(visit, item.body)
    case 'trace':
      return fromTrace(item, { id, at })
  }
}

function fromTrace(
  item: FromTrace,
  stamp: { id: string; at: string },
): Promise<Schemas['VisitPage']> {
  const { source } = item
  switch (item.what) {
    case 'log_means':
      return writeMeans(source, { ...item.body, ...stamp })
    case 'means':
      return writeCaptureMeans(source, { ...item.body, ...stamp })
    case 'dips':
      return writeDips(source, { ...item.body, ...stamp })
    case 'step':
      return writeStep(source, { ...item.body, ...stamp })
  }
}
