<script setup lang="ts">
import type { Completion } from './completions'

/** What the line may become, to choose from while it is typed: a list box of the bar's field. */
defineProps<{ options: Completion[]; active: number; id: string }>()
defineEmits<{ choose: [line: string] }>()
</script>

<template>
  <ul v-if="options.length" :id="id" class="list" role="listbox" aria-label="What it may become">
    <li
      v-for="(option, at) in options"
      :id="`${id}-${at}`"
      :key="option.line"
      role="option"
      :aria-selected="at === active"
      :class="{ active: at === active }"
      @mousedown.prevent="$emit('choose', option.line)"
    >
      <span>{{ option.line }}</span>
      <small>{{ option.text }}</small>
    </li>
  </ul>
</template>

<style scoped>
.list {
  display: flex;
  gap: 6px;
  margin: 0 0 8px;
  padding: 0;
  overflow-x: auto;
  list-style: none;
}
li {
  display: flex;
  flex: none;
  flex-direction: column;
  justify-content: center;
  min-height: 44px;
  padding: 2px 12px;
  border: 1px solid var(--bar-line);
  border-radius: 5px;
  cursor: pointer;
}
li.active {
  border-color: var(--bar-ink);
  background: var(--bar-line);
}
small {
  font-size: 14px;
  opacity: 0.85;
}
</style>
