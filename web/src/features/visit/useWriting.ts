import {
  computed,
  ref,
  toValue,
  watch,
  type ComputedRef,
  type MaybeRefOrGetter,
  type Ref,
} from 'vue'
import type { Schemas } from '@/api/client'
import { typedIn } from '@/outbox/saidIn'
import type { Pending } from '@/outbox/store'
import { useOutbox } from '@/outbox/useOutbox'
import { useBar } from '@/parts/desk/bar'

export interface UseWritingReturn {
  pending: ComputedRef<Pending[]>
  waiting: ComputedRef<number>
  /** The entry of a danger that is not struck without a reason. */
  asksWhy: Ref<string>
  write: (text: string) => void
  correctEntry: (corrects: string, text: string | null, why?: string) => void
  beginCorrection: (entry: Schemas['EntryOut']) => void
  restore: (item: Pending) => void
  discard: (item: Pending) => void
  photo: (file: File) => void
}

const nameOf = (entry?: Schemas['EntryOut']) => (entry ? `${entry.text} ${entry.value}`.trim() : '')

/** What is entered on one visit: kept on the tablet in the same tick, sent when the server is reached. */
export function useWriting(
  visit: MaybeRefOrGetter<number>,
  page: MaybeRefOrGetter<Schemas['VisitPage'] | undefined>,
): UseWritingReturn {
  const bar = useBar()
  const outbox = useOutbox()
  const asksWhy = ref('')
  const ofVisit = computed(() => outbox.mine.filter((item) => item.visit === toValue(visit)))
  const stored = computed(() => {
    const { tape = [], photos = [] } = toValue(page) ?? {}
    return new Set([...tape.map((entry) => entry.group), ...photos.map((photo) => photo.id)])
  })
  // why a visit does not close is said where it is signed
  const pending = computed(() =>
    ofVisit.value.filter(
      (item) => !stored.value.has(item.id) && !(item.kind === 'closing' && item.refused),
    ),
  )
  const waiting = computed(() => pending.value.filter((item) => !item.refused).length)
  // the answer to the sending itself may have been lost: a page on which it stands says the same
  watch([stored, ofVisit], () => {
    const there = ofVisit.value.filter((item) => stored.value.has(item.id))
    if (there.length) void outbox.remove(there.map((item) => item.id))
  })
  watch(ofVisit, (now, before) => {
    const known = new Set(before.filter((item) => item.refused).map((item) => item.id))
    for (const item of now) if (item.refused && !known.has(item.id)) answerTo(item)
  })

  /** A refusal that just came: the line goes back where it was typed, unless something else is typed there by now. */
  function answerTo(item: Pending): void {
    if (item.kind === 'correction' && item.refused?.code === 'strike_reason') {
      asksWhy.value = item.corrects
      discard(item)
    } else if (!bar.text && typedIn(item) && bar.sent?.line === typedIn(item)) restore(item)
  }

  function write(text: string): void {
    const { stage, phase, replaces } = bar
    outbox.add(toValue(visit), { kind: 'line', text, stage, phase }, replaces)
  }

  function correctEntry(corrects: string, text: string | null, why = ''): void {
    const said = nameOf(toValue(page)?.tape.find((entry) => entry.id === corrects))
    outbox.add(toValue(visit), { kind: 'correction', corrects, said, text, why }, bar.replaces)
    if (bar.correcting?.id === corrects) bar.correcting = null
    asksWhy.value = ''
  }

  function beginCorrection(entry: Schemas['EntryOut']): void {
    bar.correcting = { id: entry.id, text: nameOf(entry) }
    bar.begin(entry.typed)
  }

  /** Gives the words back into the bar; on the disk they stay until what is entered instead of them is there. */
  function restore(item: Pending): void {
    bar.correcting =
      item.kind === 'correction' ? { id: item.corrects, text: item.said } : bar.correcting
    bar.begin(typedIn(item))
    bar.replaces = item.id
  }

  const photo = (file: File) =>
    void outbox.add(toValue(visit), { kind: 'photo', file, station: bar.station })
  const discard = (item: Pending) => void outbox.remove([item.id])
  return {
    pending,
    waiting,
    asksWhy,
    write,
    correctEntry,
    beginCorrection,
    restore,
    discard,
    photo,
  }
}
