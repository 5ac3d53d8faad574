<script setup lang="ts">
import { ref } from 'vue'
import type { Schemas } from '@/api/client'
import { saidIn, typedIn } from '@/outbox/saidIn'
import type { Pending } from '@/outbox/store'
import { formats } from '@/ui/formats'
import TapeEntry from './TapeEntry.vue'

/** The tape, newest first; above it what has not reached the server. */
const props = defineProps<{
  tape: Schemas['EntryOut'][]
  pending: Pending[]
  writable: boolean
  asksWhy?: string
}>()
const emit = defineEmits<{
  correct: [entry: Schemas['EntryOut']]
  strike: [entry: Schemas['EntryOut'], why: string]
  restore: [item: Pending]
  discard: [item: Pending]
}>()
const open = ref('')

/** What an entry's line depends on: a long tape draws only the lines of which something changed. */
const looksOf = (entry: Schemas['EntryOut']): unknown[] => [
  entry.text,
  entry.value,
  entry.corrected_by,
  formats.value,
  props.writable,
  props.asksWhy === entry.id,
  open.value === entry.id,
]
</script>

<template>
  <section class="tape">
    <h2>
      Tape
      <span class="muted">as found ○ as left ▼</span>
    </h2>
    <ul v-if="pending.length" class="pending">
      <li v-for="item in pending" :key="item.id" :class="{ refused: item.refused }">
        <span>{{ item.refused ? 'Refused' : 'To send' }}</span>
        <div>
          <b>{{ saidIn(item) }}</b>
          <p v-if="item.refused">{{ item.refused.why }}</p>
        </div>
        <span v-if="item.refused">
          <button v-if="typedIn(item)" class="small" @click="emit('restore', item)">
            Into the bar
          </button>
          <button class="small" @click="emit('discard', item)">Discard</button>
        </span>
      </li>
    </ul>
    <p v-if="!tape.length && !pending.length" class="muted none">
      Nothing is written yet. Begin with room CO, like
      <b>room 0</b>
    </p>
    <ul v-else>
      <TapeEntry
        v-for="entry in tape"
        :key="entry.id"
        v-memo="looksOf(entry)"
        :entry="entry"
        :writable="writable"
        :asks-why="asksWhy === entry.id"
        :open="open === entry.id"
        @update:open="(now) => (open = now ? entry.id : '')"
        @correct="emit('correct', entry)"
        @strike="(why) => emit('strike', entry, why)"
      />
    </ul>
  </section>
</template>

<style scoped>
.tape {
  padding: 12px 16px 20px;
}
h2 {
  display: flex;
  justify-content: space-between;
  margin-bottom: 4px;
  font-size: 17px;
  font-weight: 600;
}
h2 span {
  font-size: 15px;
  font-weight: 400;
}
ul {
  margin: 0;
  padding: 0;
  list-style: none;
}
.small {
  min-height: 44px;
  margin-left: 8px;
  padding: 0 12px;
  border: 1px solid var(--line);
  border-radius: 5px;
  background: var(--plate);
}
.pending {
  margin-bottom: 8px;
}
.pending li {
  display: flex;
  gap: 10px;
  align-items: center;
  margin-bottom: 4px;
  padding: 6px 10px;
  border: 1.5px dashed var(--near);
  border-radius: 5px;
}
.pending div {
  flex: 1;
}
.pending .refused {
  border-color: var(--out);
}
.none {
  padding: 14px 0;
}
</style>
