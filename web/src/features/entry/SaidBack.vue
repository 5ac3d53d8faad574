<script setup lang="ts">
import { computed } from 'vue'
import type { Schemas } from '@/api/client'
import StateMark from '@/ui/StateMark.vue'

/** What the line means, entry by entry; what was not understood, what is asked back, what is being corrected: above the bar. */
const props = defineProps<{
  said: Schemas['ReadBack'] | null
  text: string
  silent: boolean
  correcting: string
}>()
defineEmits<{ leave: []; take: [line: string]; choose: [line: string]; instruments: [] }>()
const problem = computed(() => props.said?.problems[0])
const ask = computed(() => props.said?.asks[0])
const unread = computed(() => props.said?.unread ?? [])
const echo = computed(() => props.said?.echo ?? [])
const doubts = computed(() => props.said?.doubts ?? [])
const chips = computed(() => props.said?.chips ?? [])
/** Chips stand beside a reading: with what it was read is asked there too. */
const readWith = computed(() =>
  props.said?.read_with.length ? `with ${props.said.read_with.join(', ')}` : 'read with …',
)
const kept = computed(() => props.silent && !!props.text)
const shown = computed(
  () =>
    echo.value.length ||
    problem.value ||
    ask.value ||
    unread.value.length ||
    kept.value ||
    props.correcting,
)
const offersNote = computed(
  () => props.said?.offers_note && !ask.value?.choices.some((choice) => choice.startsWith('note ')),
)
const danger = (entry: number) => props.said?.dangers.find((one) => one.entry === entry)
</script>

<template>
  <div v-if="shown" class="said" role="status">
    <p v-if="correcting">
      Correcting “{{ correcting }}”.
      <button class="word" @click="$emit('leave')">Leave it as it is</button>
    </p>
    <ul v-if="echo.length" data-test="echo" class="means">
      <li v-for="(one, entry) in echo" :key="entry" :class="{ danger: danger(entry) }">
        <StateMark v-if="danger(entry)" state="out" :size="16" />
        {{ one }}
        <strong v-if="danger(entry)">First: {{ danger(entry)?.first }}.</strong>
      </li>
    </ul>
    <div v-if="chips.length" class="chips" role="group" aria-label="How it was read">
      <button type="button" class="chip with" @click="$emit('instruments')">{{ readWith }}</button>
      <button
        v-for="chip in chips"
        :key="chip.label"
        type="button"
        class="chip"
        :class="{ on: chip.on }"
        :aria-pressed="chip.on"
        @click="$emit('choose', chip.line)"
      >
        {{ chip.label }}
      </button>
    </div>
    <p v-for="doubt in doubts" :key="doubt" class="problem" data-test="doubt">{{ doubt }}</p>
    <p v-if="problem" class="problem">
      {{ problem.text }}
      <button
        v-for="meaning in problem.meanings"
        :key="meaning.line"
        class="word"
        @click="$emit('take', meaning.line)"
      >
        {{ [meaning.line, meaning.meaning].filter(Boolean).join(' – ') }}
      </button>
    </p>
    <p v-else-if="ask" class="problem" data-test="ask">
      {{ ask.question }}
      <button
        v-for="choice in ask.choices"
        :key="choice"
        class="word"
        @click="$emit('choose', choice)"
      >
        {{ choice }}
      </button>
    </p>
    <p v-else-if="unread.length" class="problem" data-test="unread">
      Not understood: “{{ unread.join(' ') }}”.
    </p>
    <button v-if="offersNote" class="word" @click="$emit('choose', `note ${text.trim()}`)">
      Keep as a note
    </button>
    <p v-if="kept && !problem">
      The server cannot be reached: Enter keeps the line on this tablet and sends it later.
    </p>
  </div>
</template>

<style scoped>
.said {
  position: absolute;
  left: 16px;
  right: 16px;
  bottom: 100%;
  max-height: 50vh;
  overflow-y: auto;
  overflow-wrap: anywhere;
  padding: 10px 14px;
  background: var(--bar);
  border-radius: 8px 8px 0 0;
  font-size: 17px;
}
p {
  margin: 0;
}
.means {
  display: flex;
  flex-wrap: wrap;
  gap: 4px 22px;
  margin: 0;
  padding: 0;
  list-style: none;
}
.danger {
  display: flex;
  flex-basis: 100%;
  align-items: center;
  gap: 8px;
  padding: 4px 10px;
  border-radius: 5px;
  background: var(--danger-ground);
  color: var(--out);
}
.chips {
  display: flex;
  gap: 6px;
  padding: 6px 0 2px;
  overflow-x: auto;
}
.chip {
  flex: none;
  min-height: 44px;
  padding: 0 11px;
  border: 1px solid var(--bar-line);
  border-radius: 22px;
  background: none;
  color: var(--bar-ink);
  font-size: 15px;
}
.chip.on {
  border-color: var(--bar-ink);
  background: var(--bar-ink);
  color: var(--bar);
}
.problem {
  color: var(--asks);
}
.word {
  min-height: 44px;
  margin: 2px 4px;
  padding: 0 10px;
  border: 1px solid var(--bar-line);
  border-radius: 5px;
  background: none;
  color: var(--bar-ink);
}
@media (max-width: 800px) {
  .said {
    max-height: 30vh;
    left: 0;
    right: 0;
    font-size: 16px;
  }
  .means {
    flex-direction: column;
  }
}
</style>
