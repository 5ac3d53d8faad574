<script setup lang="ts">
import { storeToRefs } from 'pinia'
import { computed, onMounted, ref, useTemplateRef, watch } from 'vue'
import type { Schemas } from '@/api/client'
import { useBar } from '@/parts/desk/bar'
import { PHASE_MARKS, PHASE_WORDS } from '@/parts/desk/words'
import FileButton from '@/ui/FileButton.vue'
import { PICTURES } from '@/ui/pictures'
import InHand from './InHand.vue'
import BarButtons from './BarButtons.vue'
import Keypad from './Keypad.vue'
import HeldKey from './HeldKey.vue'
import LineField from './LineField.vue'
import NarrowButtons from './NarrowButtons.vue'
import SaidBack from './SaidBack.vue'
import { useOptions } from './useOptions'
import { useReadBack } from './useReadBack'
import WordList from './WordList.vue'

const LIST = 'what-it-may-become'
const props = defineProps<{ page: Schemas['VisitPage']; narrow: boolean; view: string }>()
const emit = defineEmits<{
  write: [text: string]
  correct: [text: string]
  list: [name: 'done' | 'found' | 'jumpers']
  photo: [file: File]
  page: [page: Schemas['VisitPage']]
}>()
const bar = useBar()
const { text, phase, stage, entering } = storeToRefs(bar)
const { said, silent, answered } = useReadBack(() => props.page.id, text, stage, phase)
const line = useTemplateRef<InstanceType<typeof LineField>>('line')
const letters = ref(false)
const stageWord = computed(() => {
  const chosen = props.page.stages.find((s) => s.key === stage.value)
  return (chosen ?? props.page.stages.at(-1))?.label ?? ''
})
const { options, active, keep, pressed } = useOptions(() => props.page.id, text, {
  choose,
  leave: escape,
})
const isWrong = computed(
  () =>
    !!said.value &&
    !bar.waits &&
    said.value.problems.length + said.value.asks.length + said.value.unread.length > 0,
)
const likely = computed(() => props.page.standing.missing.map((m) => m.starter))

onMounted(() => bar.attach(line.value?.field ?? null))
// whoever looks at another view does not type just now
watch(
  () => props.view,
  () => (entering.value = false),
)

function turnStage(): void {
  const keys = props.page.stages.map((s) => s.key)
  const now = stage.value ?? keys.at(-1)
  stage.value = keys[(now ? keys.indexOf(now) + 1 : 0) % keys.length] ?? null
}

/** Enter: in the same tick the line is kept and the bar empty. Where it is known not to be understood, it stays. */
function submit(): void {
  const typed = text.value.trim()
  if (!typed || answered()?.writable === false) return
  if (bar.correcting) emit('correct', typed)
  else emit('write', typed)
  bar.sent = { line: typed }
  keep(typed)
  text.value = ''
}

/** Puts a suggestion in the place of the piece that was not understood. */
function take(suggestion: string): void {
  const piece = said.value?.problems[0]?.piece ?? ''
  choose(text.value.includes(piece) ? text.value.replace(piece, suggestion) : suggestion)
}

/** A whole line to choose instead; it is read back once more before it is written. */
function choose(whole: string): void {
  text.value = whole
  bar.focus()
}

function press(key: string): void {
  if (key === 'back') text.value = text.value.slice(0, -1)
  else if (key === 'enter') submit()
  else if (key === 'done') entering.value = false
  else if (key === 'letters') turnLetters()
  else text.value += key
}

function turnLetters(): void {
  letters.value = !letters.value
  line.value?.field?.blur()
  bar.focus()
}

/** The bar is left to the keys; what is half typed stays in it, a correction is left as it is. */
function escape(): void {
  if (bar.correcting) leave()
  line.value?.field?.blur()
}

function leave(): void {
  bar.correcting = null
  text.value = ''
}
</script>

<template>
  <footer class="bar" aria-label="Entry bar">
    <SaidBack
      :said="bar.waits ? null : said"
      :text="text"
      :silent="silent"
      :correcting="bar.correcting?.text ?? ''"
      @leave="leave"
      @take="take"
      @choose="choose"
      @instruments="bar.choosesInstruments = true"
    />
    <WordList :id="LIST" :options="bar.waits ? [] : options" :active="active" @choose="choose" />
    <form class="line" @submit.prevent="submit">
      <button
        type="button"
        class="side"
        :aria-label="`Phase: ${PHASE_WORDS[phase]}. Press to change`"
        @click="bar.turnPhase()"
      >
        {{ PHASE_WORDS[phase] }} {{ PHASE_MARKS[phase] }}
      </button>
      <button
        v-if="page.stages.length > 1"
        type="button"
        class="side stage"
        aria-label="Stage. Press to change"
        @click="turnStage"
      >
        {{ stageWord }} fire
      </button>
      <LineField
        ref="line"
        v-model="text"
        :wrong="isWrong"
        :writable="page.writable"
        :letters="!narrow || letters"
        :list="LIST"
        :open="options.length > 0"
        :active="active"
        @focus="entering = true"
        @press="pressed"
      />
      <NarrowButtons v-if="narrow && !entering" @list="(name) => emit('list', name)" />
      <BarButtons
        v-if="!narrow"
        :instruments="page.instruments"
        :writes="!!text.trim()"
        @list="(name) => emit('list', name)"
        @photo="(file) => emit('photo', file)"
      />
    </form>
    <Keypad
      v-if="narrow && entering"
      :likely="likely"
      :two-stage="page.stages.length > 1"
      :letters="letters"
      :actions="bar.actions"
      @press="press"
      @begin="bar.begin"
      @list="(name) => emit('list', name)"
    >
      <template #first><HeldKey :instruments="page.instruments" /></template>
      <FileButton
        class="side photo"
        :accept="PICTURES"
        capture="environment"
        @file="(file) => emit('photo', file)"
      >
        Photo
      </FileButton>
    </Keypad>
    <InHand :page="page" :narrow="narrow" @page="emit('page', $event)" />
  </footer>
</template>

<style scoped src="./entryBar.css"></style>
