import { defineStore } from 'pinia'
import { nextTick, ref } from 'vue'

export type Phase = 'found' | 'left' | 'trial'
const PHASES: Phase[] = ['found', 'left', 'trial']

/** What stands in the entry bar, and the phase and stage that the next line belongs to. */
export const useBar = defineStore('bar', () => {
  const text = ref('')
  const phase = ref<Phase>('found')
  const stage = ref<string | null>(null)
  const station = ref('')
  const instrument = ref<number | null>(null)
  const correcting = ref<{ id: string; text: string } | null>(null)
  let field: HTMLInputElement | null = null

  const attach = (element: HTMLInputElement | null) => (field = element)
  const focus = () => void nextTick(() => field?.focus())
  function begin(starter: string): void {
    text.value = starter
    focus()
  }
  const turnPhase = () =>
    (phase.value = PHASES[(PHASES.indexOf(phase.value) + 1) % PHASES.length] ?? 'found')
  return { text, phase, stage, station, instrument, correcting, attach, focus, begin, turnPhase }
})
