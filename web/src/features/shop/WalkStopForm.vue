<script setup lang="ts">
import { computed } from 'vue'
import type { Schemas } from '@/api/client'
import type { StopDocument, StopList } from './walkForm'

/** What can be answered at one stop of a walk: each word is put in or taken out at a touch. */
const props = defineProps<{
  stop: StopDocument
  row: Schemas['WalkStopRow']
  disabled: boolean
}>()
defineEmits<{ word: [list: StopList, word: string]; proved: [] }>()
const lists = computed(() => [
  { key: 'found' as const, name: 'Found', words: props.row.found },
  { key: 'did' as const, name: 'Done', words: props.row.did },
  { key: 'read' as const, name: 'Must be read', words: props.row.read },
  { key: 'may_read' as const, name: 'May be read', words: props.row.read },
])
const has = (list: StopList, word: string) => props.stop[list]?.includes(word) ?? false
</script>

<template>
  <div class="form">
    <template v-for="list in lists" :key="list.key">
      <div v-if="list.words.length" class="row" role="group" :aria-label="list.name">
        <span class="muted">{{ list.name }}</span>
        <button
          v-for="word in list.words"
          :key="word.key"
          class="word"
          :class="{ on: has(list.key, word.key) }"
          :aria-pressed="has(list.key, word.key)"
          :disabled="disabled"
          @click="$emit('word', list.key, word.key)"
        >
          {{ word.name }}
        </button>
      </div>
    </template>
    <div v-if="row.proves" class="row">
      <span class="muted">Proof</span>
      <button
        class="word"
        :class="{ on: stop.proved }"
        :aria-pressed="!!stop.proved"
        :disabled="disabled"
        @click="$emit('proved')"
      >
        seen to act
      </button>
    </div>
  </div>
</template>

<style scoped>
.form {
  display: grid;
  gap: 8px;
  padding: 8px 0 10px;
}
.row {
  display: flex;
  flex-wrap: wrap;
  gap: 6px;
  align-items: center;
}
.muted {
  flex: none;
  width: 92px;
}
.word {
  min-height: 44px;
  padding: 0 10px;
  border: 1.5px solid var(--line);
  border-radius: 6px;
  background: var(--plate);
  font-size: 15px;
}
.on {
  border-color: var(--bar);
  background: var(--bar);
  color: var(--bar-ink);
}
</style>
