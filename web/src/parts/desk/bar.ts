import { defineStore } from 'pinia'
import { computed, nextTick, ref, shallowRef, watch } from 'vue'
import type { Schemas } from '@/api/client'

/** A stage of the burner, as lines and readings name it. */
export type Stage = NonNullable<Schemas['LineIn']['stage']>
export type Phase = 'found' | 'left' | 'trial'
const PHASES: Phase[] = ['found', 'left', 'trial']

/** A button beside the field of the bar. */
export interface BarAction {
  name: string
  run: () => void
}

/** What stands in the entry bar, and the phase and stage that the next line belongs to. */
export const useBar = defineStore('bar', () => {
  const text = ref('')
  const phase = ref<Phase>('found')
  const stage = ref<Stage | null>(null)
  const station = ref('')
  /** True while it is chosen which instruments are in hand. */
  const choosesInstruments = ref(false)
  /** Words that were put into the bar for the rest to be typed behind. */
  const begun = ref('')
  /** The line that was written last. */
  const sent = ref<{ line: string } | null>(null)
  /** True while numbers are typed with the keypad: it and the line need the room. */
  const entering = ref(false)
  /** What a view offers beside the field instead of the lists, on a narrow screen. */
  const actions = shallowRef<BarAction[]>([])
  const correcting = ref<{ id: string; text: string } | null>(null)
  /** What waits on this tablet and was taken back into the bar: what is entered next stands in its place. */
  const replaces = ref('')
  let field: HTMLInputElement | null = null

  const attach = (element: HTMLInputElement | null) => (field = element)
  const focus = () => void nextTick(() => field?.focus())
  function begin(starter: string): void {
    begun.value = text.value = starter
    replaces.value = ''
    focus()
  }
  watch(text, (now) => now || (replaces.value = ''), { flush: 'sync' })
  /** True while nothing was typed behind words that were put into the bar: there is nothing to say of them yet. */
  const waits = computed(() => /\s$/.test(text.value) && text.value === begun.value)
  const turnPhase = () =>
    (phase.value = PHASES[(PHASES.indexOf(phase.value) + 1) % PHASES.length] ?? 'found')
  return {
    text,
    phase,
    stage,
    station,
    choosesInstruments,
    waits,
    begun,
    sent,
    entering,
    actions,
    correcting,
    replaces,
    attach,
    focus,
    begin,
    turnPhase,
  }
})
