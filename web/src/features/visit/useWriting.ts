import { useMessage } from 'naive-ui'
import { computed, ref, toValue, type ComputedRef, type MaybeRefOrGetter, type Ref } from 'vue'
import { correct, sendPhoto } from '@/api/calls'
import { ApiError, type Schemas } from '@/api/client'
import type { PendingLine } from '@/outbox/store'
import { deviceName, localIso, useOutbox } from '@/outbox/useOutbox'
import { useBar } from '@/parts/desk/bar'

export interface UseWritingReturn {
  pending: ComputedRef<PendingLine[]>
  waiting: ComputedRef<number>
  /** The entry of a danger that is not struck without a reason. */
  asksWhy: Ref<string>
  write: (text: string) => Promise<void>
  correctEntry: (corrects: string, text: string | null, why?: string) => Promise<void>
  beginCorrection: (entry: Schemas['EntryOut']) => void
  restore: (line: PendingLine) => Promise<void>
  discard: (line: PendingLine) => Promise<void>
  photo: (file: File) => Promise<void>
}

/** Lines, corrections and photos of one visit: kept on the tablet first, sent when the server is reached. */
export function useWriting(
  visit: MaybeRefOrGetter<number>,
  replace: (page: Schemas['VisitPage']) => void,
): UseWritingReturn {
  const bar = useBar()
  const outbox = useOutbox()
  const message = useMessage()
  const asksWhy = ref('')
  const pending = computed(() => outbox.lines.filter((line) => line.visit === toValue(visit)))
  const waiting = computed(() => pending.value.filter((line) => !line.refused).length)
  const tell = (trouble: unknown) =>
    message.error(trouble instanceof ApiError ? trouble.message : String(trouble), {
      duration: 8000,
      closable: true,
    })

  async function write(text: string): Promise<void> {
    const { stage, phase } = bar
    await outbox.add({ visit: toValue(visit), text, stage, phase })
  }

  async function correctEntry(corrects: string, text: string | null, why = ''): Promise<void> {
    const now = localIso(new Date())
    const id = crypto.randomUUID()
    try {
      const given = { id, corrects, text, why, at: now, sent_at: now, device: deviceName() }
      replace(await correct(toValue(visit), given))
      bar.correcting = null
      asksWhy.value = ''
    } catch (trouble) {
      if (text) bar.text = text
      if (trouble instanceof ApiError && trouble.code === 'strike_reason') asksWhy.value = corrects
      tell(trouble)
    }
  }

  function beginCorrection(entry: Schemas['EntryOut']): void {
    bar.correcting = { id: entry.id, text: `${entry.text} ${entry.value}` }
    bar.begin(entry.typed)
  }

  async function restore(line: PendingLine): Promise<void> {
    bar.begin(line.text)
    await outbox.remove(line.id)
  }

  async function photo(file: File): Promise<void> {
    try {
      replace(await sendPhoto(toValue(visit), file, bar.station, () => undefined))
      message.success('The photo is with the visit.')
    } catch (trouble) {
      tell(trouble)
    }
  }

  const discard = (line: PendingLine) => outbox.remove(line.id)
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
