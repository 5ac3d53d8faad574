<script setup lang="ts">
import { ref } from 'vue'
import type { Schemas } from '@/api/client'
import { levelState } from '@/ui/levels'
import StateMark from '@/ui/StateMark.vue'

/** One reason for the standing, and what lifts it. */
defineProps<{ reason: Schemas['ReasonOut'] }>()
defineEmits<{ station: [key: string] }>()
const open = ref(false)
</script>

<template>
  <li>
    <StateMark :state="levelState(reason.level)" :size="15" />
    <div>
      <button class="reason" @click="$emit('station', reason.station)">{{ reason.text }}</button>
      <button class="ask" :aria-expanded="open" @click="open = !open">what lifts it</button>
      <p v-if="open" class="lifts">
        {{ reason.lifts }}
        <span v-if="reason.limit" class="muted">
          Read: {{ reason.reading }}. Limit: {{ reason.limit }}, {{ reason.source }}.
        </span>
      </p>
    </div>
  </li>
</template>

<style scoped>
li {
  display: flex;
  gap: 10px;
  align-items: flex-start;
}
li > svg {
  margin-top: 4px;
}
button {
  padding: 0;
  border: 0;
  background: none;
  text-align: left;
}
.reason {
  margin-right: 6px;
  font-weight: 500;
}
.reason:hover {
  text-decoration: underline;
}
.ask {
  font-size: 15px;
  color: var(--in);
  text-decoration: underline dotted;
}
.lifts {
  margin: 4px 0 2px;
  padding-left: 10px;
  border-left: 3px solid var(--line);
}
@media (max-width: 800px), (pointer: coarse) {
  button {
    min-height: 44px;
    padding-block: 4px;
  }
}
</style>
