<script setup lang="ts">
import { ref } from 'vue'
import type { Schemas } from '@/api/client'
import type { PendingLine } from '@/outbox/store'
import { clock, day, PHASE_WORDS } from './words'

defineProps<{ tape: Schemas['EntryOut'][]; pending: PendingLine[]; writable: boolean; asksWhy?: string }>()
const emit = defineEmits<{ correct: [entry: Schemas['EntryOut']]; strike: [entry: Schemas['EntryOut'], why: string]; restore: [line: PendingLine]; discard: [line: PendingLine] }>()
const chosen = ref('')
const why = ref('')
</script>

<template>
  <section class="tape">
    <h2>Tape <span class="muted">as found ○ as left ▼</span></h2>
    <ul v-if="pending.length" class="pending">
      <li v-for="line in pending" :key="line.id" :class="{ refused: line.refused }">
        <span>{{ line.refused ? 'Refused' : 'To send' }}</span><div><b>{{ line.text }}</b><p v-if="line.refused">{{ line.refused }}</p></div>
        <span v-if="line.refused"><button class="small" @click="emit('restore', line)">Into the bar</button><button class="small" @click="emit('discard', line)">Discard</button></span>
      </li>
    </ul>
    <p v-if="!tape.length && !pending.length" class="muted none">Nothing is written yet. Begin with room CO: <b>room 0</b>.</p>
    <ul>
      <li v-for="entry in tape" :key="entry.id">
        <button class="entry" :class="[entry.tone, { struck: entry.corrected_by }]" :aria-expanded="chosen === entry.id" @click="chosen = chosen === entry.id ? '' : entry.id">
          <time class="muted">{{ clock(entry.at, entry.zone) }}</time>
          <span class="text">{{ entry.text }} <i v-if="entry.kind === 'reading' || entry.kind === 'trace'" class="muted">{{ PHASE_WORDS[entry.phase as 'found'].toLowerCase() }}</i></span>
          <b>{{ entry.value }}</b>
        </button>
        <p v-if="chosen === entry.id" class="more muted">{{ entry.author }}, {{ day(entry.at, entry.zone) }} {{ clock(entry.at, entry.zone) }} {{ entry.zone }}
          <template v-if="writable && !entry.corrected_by"><button v-if="entry.typed" class="small" @click="emit('correct', entry)">Correct</button><button class="small" @click="emit('strike', entry, '')">{{ entry.kind === 'correction' ? 'Take back' : 'Strike' }}</button></template>
          <template v-else-if="entry.corrected_by">A correction stands beside it.</template></p>
        <form v-if="asksWhy === entry.id" class="why" @submit.prevent="emit('strike', entry, why)"><label>Why is it struck?<input v-model="why" name="why" maxlength="500" autocomplete="off" /></label><button class="small" :disabled="!why.trim()">Strike it</button></form>
      </li>
    </ul>
  </section>
</template>

<style scoped>
.tape { padding: 12px 16px 20px } h2 { display: flex; justify-content: space-between; font-size: 17px; font-weight: 600; margin-bottom: 4px } h2 span { font-size: 15px; font-weight: 400 }
ul { list-style: none; margin: 0; padding: 0 }
.entry { display: grid; grid-template-columns: 46px 1fr auto; gap: 8px; align-items: baseline; width: 100%; min-height: 32px; padding: 5px 0; border: 0; border-bottom: 1px dashed var(--line); background: none; text-align: left }
.entry b { font-weight: 600; max-width: 150px; text-align: right } .strong .text { font-weight: 600 } .danger .text, .danger b { color: var(--out); font-weight: 700 }
.struck .text, .struck b { text-decoration: line-through; color: var(--muted) } i { font-size: 14px }
.more { padding: 4px 0 8px 54px; font-size: 15px } .small { min-height: 44px; margin-left: 8px; padding: 0 12px; border: 1px solid var(--line); border-radius: 5px; background: var(--plate) }
.why { display: flex; gap: 8px; align-items: end; padding: 0 0 10px 54px } .why label { display: grid; gap: 4px; flex: 1; font-weight: 500 } .why input { min-height: 44px; padding: 0 10px; border: 1px solid var(--line); border-radius: 5px; background: var(--plate); color: inherit; font: inherit }
.pending { margin-bottom: 8px } .pending li { display: flex; gap: 10px; align-items: center; padding: 6px 10px; border: 1.5px dashed var(--near); border-radius: 5px; margin-bottom: 4px } .pending div { flex: 1 } .refused { border-color: var(--out) }
.none { padding: 14px 0 }
@media (max-width: 800px), (pointer: coarse) { .entry { min-height: 44px } }
</style>
