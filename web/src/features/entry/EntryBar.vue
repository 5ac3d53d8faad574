<script setup lang="ts">
import { storeToRefs } from 'pinia'
import { computed, onMounted, ref, watch } from 'vue'
import type { Schemas } from '@/api/client'
import { useBar } from '@/features/visit/bar'
import { PHASE_MARKS, PHASE_WORDS } from '@/features/visit/words'
import Keypad from './Keypad.vue'
import { useReadBack } from './useReadBack'

const props = defineProps<{ page: Schemas['VisitPage']; narrow: boolean; view: string }>()
const emit = defineEmits<{ write: [text: string]; correct: [text: string]; list: [name: 'done' | 'found' | 'jumpers']; photo: [file: File] }>()
const bar = useBar()
const { text, phase, stage } = storeToRefs(bar)
const { said, silent, confirm } = useReadBack(() => props.page.id, text, stage, phase)
const field = ref<HTMLInputElement | null>(null)
const entering = ref(false)
const letters = ref(false)
const stageWord = computed(() => (props.page.stages.find((s) => s.key === stage.value)?.label ?? props.page.stages.at(-1)?.label ?? ''))
const echo = computed(() => [...(said.value?.echo ?? []), ...(said.value?.doubts ?? [])].join(' · '))
const problem = computed(() => said.value?.problems[0])
const ask = computed(() => said.value?.asks[0])
const unread = computed(() => said.value?.unread ?? [])
const likely = computed(() => props.page.standing.missing.map((m) => m.starter))

onMounted(() => bar.attach(field.value))
watch(() => props.view, () => (entering.value = false)) // whoever looks at another view does not type just now

function turnStage(): void {
  const keys = props.page.stages.map((s) => s.key)
  const now = stage.value ?? keys.at(-1)
  stage.value = keys[(keys.indexOf(now ?? '') + 1) % keys.length] ?? null
}

async function submit(): Promise<void> {
  const line = text.value.trim()
  if (!line) return
  const understood = await confirm()
  if (understood && !understood.writable) return
  if (bar.correcting) emit('correct', line)
  else emit('write', line)
  text.value = ''
}

function take(line: string): void {
  const piece = problem.value?.piece ?? ''
  text.value = text.value.includes(piece) ? text.value.replace(piece, line) : line
  bar.focus()
}

/** A whole line to choose instead; it is read back once more before it is written. */
function choose(line: string): void {
  text.value = line
  bar.focus()
}

function press(key: string): void {
  if (key === 'back') text.value = text.value.slice(0, -1)
  else if (key === 'enter') void submit()
  else if (key === 'letters') {
    letters.value = !letters.value
    field.value?.blur()
    bar.focus()
  } else if (key === 'done') entering.value = false
  else text.value += key
}

function pick(event: Event): void {
  const input = event.target as HTMLInputElement
  const file = input.files?.[0]
  if (file) emit('photo', file)
  input.value = ''
}

/** Escape leaves the bar to the keys; what is half typed stays in it, a correction is left as it is. */
function out(): void {
  if (bar.correcting) leave()
  field.value?.blur()
}

function leave(): void {
  bar.correcting = null
  text.value = ''
}
</script>

<template>
  <footer class="bar" :class="{ entering: entering && narrow }">
    <div v-if="problem || ask || unread.length || (silent && text) || bar.correcting" class="said" role="status">
      <span v-if="bar.correcting">Correcting “{{ bar.correcting.text }}”. <button class="word" @click="leave">Leave it as it is</button></span>
      <span v-if="problem" class="problem">{{ problem.text }} <button v-for="meaning in problem.meanings" :key="meaning.line" class="word" @click="take(meaning.line)">{{ meaning.line }}<template v-if="meaning.meaning"> – {{ meaning.meaning }}</template></button></span>
      <span v-else-if="ask" class="problem" data-test="ask">{{ ask.question }} <button v-for="choice in ask.choices" :key="choice" class="word" @click="choose(choice)">{{ choice }}</button></span>
      <span v-else-if="unread.length" class="problem" data-test="unread">Not understood: “{{ unread.join(' ') }}”.</span>
      <button v-if="said?.offers_note && !ask?.choices.some((choice) => choice.startsWith('note '))" class="word" @click="choose(`note ${text.trim()}`)">Keep as a note</button>
      <span v-if="silent && text && !problem">The server is not reached: Enter keeps the line on this tablet and sends it later.</span>
    </div>
    <form class="line" @submit.prevent="submit">
      <button type="button" class="side" :aria-label="`Phase: ${PHASE_WORDS[phase]}. Press to change`" @click="bar.turnPhase()">{{ PHASE_WORDS[phase] }} {{ PHASE_MARKS[phase] }}</button>
      <button v-if="page.stages.length > 1" type="button" class="side stage" aria-label="Stage. Press to change" @click="turnStage">{{ stageWord }} fire</button>
      <label class="field" :class="{ wrong: problem || ask || unread.length }">
        <span class="sr">Write a line on the tape</span>
        <input ref="field" v-model="text" name="line" :inputmode="narrow && !letters ? 'none' : 'text'" autocomplete="off" autocapitalize="none" spellcheck="false" maxlength="500" placeholder="o2 6.4 co 46 t 118" :disabled="!page.writable" @focus="entering = true" @keydown.esc="out" />
        <span class="echo" data-test="echo">{{ echo }}</span>
      </label>
      <template v-if="!narrow">
        <button type="button" class="side" @click="emit('list', 'done')">Did…</button>
        <button type="button" class="side" @click="emit('list', 'found')">Found…</button>
        <button type="button" class="side" @click="emit('list', 'jumpers')">Jumper…</button>
        <label class="side">Photo<input type="file" accept="image/jpeg,image/png,image/webp" class="sr" @change="pick" /></label>
        <button type="submit" class="side go" :disabled="!text.trim()">Write</button>
      </template>
    </form>
    <Keypad v-if="narrow && entering" :likely="likely" :two-stage="page.stages.length > 1" :letters="letters" @press="press" @begin="bar.begin" @list="(name) => emit('list', name)">
      <label class="side photo">Photo<input type="file" accept="image/jpeg,image/png,image/webp" capture="environment" class="sr" @change="pick" /></label>
    </Keypad>
  </footer>
</template>

<style scoped>
.bar { grid-area: bar; position: relative; background: var(--bar); color: var(--bar-ink); padding: 14px 16px; padding-bottom: max(14px, env(safe-area-inset-bottom)) }
.line { display: flex; gap: 12px; align-items: stretch }
.side { display: inline-flex; align-items: center; justify-content: center; min-height: 52px; padding: 0 15px; border: 1.5px solid var(--bar-line); border-radius: 7px; background: none; color: inherit; font-weight: 500; white-space: nowrap; cursor: pointer }
.side:focus-within { outline: 3px solid var(--in) } .go { background: var(--accent); border-color: var(--accent); color: var(--accent-ink); font-weight: 600 } .go:disabled { opacity: .6 }
.field { position: relative; flex: 1; min-width: 0; display: flex; align-items: center; gap: 12px; padding: 0 14px; background: #fffefa; color: #1c2523; border-radius: 7px; border: 2px solid transparent }
.field:focus-within { border-color: var(--in) } .field.wrong { border-color: #b06c12 }
input[name='line'] { flex: 1 1 130px; min-width: 0; border: 0; outline: 0; background: none; color: inherit; font: 500 24px var(--font) } input::placeholder { color: #8b908c; font-weight: 400 }
.echo { flex: 0 1 auto; max-width: 62%; color: #5a6460; font-size: 17px; overflow: hidden; text-overflow: ellipsis; white-space: nowrap }
.said { position: absolute; left: 16px; right: 16px; bottom: 100%; padding: 10px 14px; background: var(--bar); border-radius: 8px 8px 0 0; font-size: 17px } .problem { color: #ffd58f }
.word { min-height: 36px; margin: 2px 4px; padding: 0 10px; border: 1px solid var(--bar-line); border-radius: 5px; background: none; color: var(--bar-ink) }
.photo { position: relative; flex: none; border-color: var(--accent) }
@media (max-width: 800px) {
  .bar { padding: 8px } .line { gap: 6px } .side { padding: 0 9px; font-size: 15px; min-height: 48px } input[name='line'] { font-size: 21px; flex-basis: 90px } .field { padding: 0 10px; flex-wrap: wrap; gap: 0; align-content: center } .echo { max-width: 100%; flex: 1 0 100%; font-size: 14px } .echo:empty { display: none }
}
</style>
