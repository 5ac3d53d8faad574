<script setup lang="ts">
import { computed, ref } from 'vue'
import type { Schemas } from '@/api/client'
import { PHASE_WORDS } from '@/parts/desk/words'
import { clockAtOffset, dayAtOffset } from '@/ui/moments'

/** One line of the tape; touched, it tells who wrote it and when, and can be corrected or struck. */
const props = defineProps<{ entry: Schemas['EntryOut']; writable: boolean; asksWhy: boolean }>()
const emit = defineEmits<{ correct: []; strike: [why: string] }>()
const open = defineModel<boolean>('open', { required: true })
const why = ref('')
const phase = computed(() =>
  props.entry.kind === 'reading' || props.entry.kind === 'trace'
    ? PHASE_WORDS[props.entry.phase as 'found'].toLowerCase()
    : '',
)
const readWith = computed(() => {
  const { instrument, out_of_calibration } = props.entry
  return instrument && `Read with ${instrument}${out_of_calibration ? ', out of calibration' : ''}.`
})
const written = computed(() => {
  const { author, at, zone } = props.entry
  return `${author}, ${dayAtOffset(at, zone)} ${clockAtOffset(at, zone)} ${zone}`
})
/** Kept on a tablet for long, or dated back: then it says when it came. */
const received = computed(() => {
  const { received_at: at, zone } = props.entry
  return at && `Received ${dayAtOffset(at, zone)} ${clockAtOffset(at, zone)}.`
})
</script>

<template>
  <li>
    <button
      class="entry"
      :class="[entry.tone, { struck: entry.corrected_by }]"
      :aria-expanded="open"
      @click="open = !open"
    >
      <time class="muted">{{ clockAtOffset(entry.at, entry.zone) }}</time>
      <span class="text">
        {{ entry.text }}
        <i v-if="phase" class="muted">{{ phase }}</i>
        <i v-if="received" class="muted">written later</i>
        <i v-if="entry.out_of_calibration" class="out">out of calibration</i>
      </span>
      <b>{{ entry.value }}</b>
    </button>
    <p v-if="open" class="more muted">
      {{ written }} {{ received }} {{ readWith }}
      <template v-if="entry.corrected_by">A correction stands beside it.</template>
      <template v-else-if="writable">
        <button v-if="entry.typed" class="small" @click="emit('correct')">Correct</button>
        <button class="small" @click="emit('strike', '')">
          {{ entry.kind === 'correction' ? 'Take back' : 'Strike' }}
        </button>
      </template>
    </p>
    <form v-if="asksWhy" class="why" @submit.prevent="emit('strike', why)">
      <label>
        Why is it struck?
        <input v-model="why" name="why" maxlength="500" autocomplete="off" />
      </label>
      <button class="small" :disabled="!why.trim()">Strike it</button>
    </form>
  </li>
</template>

<style scoped>
li {
  content-visibility: auto; /* of hundreds of lines only those in sight are laid out */
  contain-intrinsic-size: auto 33px;
}
.entry {
  display: grid;
  grid-template-columns: 46px 1fr auto;
  gap: 8px;
  align-items: baseline;
  width: 100%;
  min-height: 32px;
  padding: 5px 0;
  border: 0;
  border-bottom: 1px dashed var(--line);
  background: none;
  text-align: left;
}
b {
  max-width: 150px;
  font-weight: 600;
  text-align: right;
}
.strong .text {
  font-weight: 600;
}
.danger .text,
.danger b {
  font-weight: 700;
  color: var(--out);
}
.struck .text,
.struck b {
  color: var(--muted);
  text-decoration: line-through;
}
i {
  font-size: 14px;
}
.out {
  color: var(--out);
}
.more {
  padding: 4px 0 8px 54px;
  font-size: 15px;
}
.small {
  min-height: 44px;
  margin-left: 8px;
  padding: 0 12px;
  border: 1px solid var(--line);
  border-radius: 5px;
  background: var(--plate);
}
.why {
  display: flex;
  gap: 8px;
  align-items: end;
  padding: 0 0 10px 54px;
}
label {
  display: grid;
  flex: 1;
  gap: 4px;
  font-weight: 500;
}
input {
  min-height: 44px;
  padding: 0 10px;
  border: 1px solid var(--line);
  border-radius: 5px;
  background: var(--plate);
  color: inherit;
  font: inherit;
}
@media (max-width: 800px), (pointer: coarse) {
  .entry {
    min-height: 44px;
  }
}
</style>
