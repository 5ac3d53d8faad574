<script setup lang="ts">
import { computed } from 'vue'
import type { Schemas } from '@/api/client'

/** What was not understood, what is asked back, what is being corrected: above the bar. */
const props = defineProps<{
  said: Schemas['ReadBack'] | null
  text: string
  silent: boolean
  correcting: string
}>()
defineEmits<{ leave: []; take: [line: string]; choose: [line: string] }>()
const problem = computed(() => props.said?.problems[0])
const ask = computed(() => props.said?.asks[0])
const unread = computed(() => props.said?.unread ?? [])
const kept = computed(() => props.silent && !!props.text)
const shown = computed(
  () => problem.value || ask.value || unread.value.length || kept.value || props.correcting,
)
const offersNote = computed(
  () => props.said?.offers_note && !ask.value?.choices.some((choice) => choice.startsWith('note ')),
)
</script>

<template>
  <div v-if="shown" class="said" role="status">
    <span v-if="correcting">
      Correcting “{{ correcting }}”.
      <button class="word" @click="$emit('leave')">Leave it as it is</button>
    </span>
    <span v-if="problem" class="problem">
      {{ problem.text }}
      <button
        v-for="meaning in problem.meanings"
        :key="meaning.line"
        class="word"
        @click="$emit('take', meaning.line)"
      >
        {{ [meaning.line, meaning.meaning].filter(Boolean).join(' – ') }}
      </button>
    </span>
    <span v-else-if="ask" class="problem" data-test="ask">
      {{ ask.question }}
      <button
        v-for="choice in ask.choices"
        :key="choice"
        class="word"
        @click="$emit('choose', choice)"
      >
        {{ choice }}
      </button>
    </span>
    <span v-else-if="unread.length" class="problem" data-test="unread">
      Not understood: “{{ unread.join(' ') }}”.
    </span>
    <button v-if="offersNote" class="word" @click="$emit('choose', `note ${text.trim()}`)">
      Keep as a note
    </button>
    <span v-if="kept && !problem">
      The server is not reached: Enter keeps the line on this tablet and sends it later.
    </span>
  </div>
</template>

<style scoped>
.said {
  position: absolute;
  left: 16px;
  right: 16px;
  bottom: 100%;
  padding: 10px 14px;
  background: var(--bar);
  border-radius: 8px 8px 0 0;
  font-size: 17px;
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
</style>
