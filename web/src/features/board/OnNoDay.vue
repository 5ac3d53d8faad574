<script setup lang="ts">
import type { Schemas } from '@/api/client'
import { levelState } from '@/ui/levels'
import { shortDay } from '@/ui/moments'
import StateMark from '@/ui/StateMark.vue'
import BoardCard from './BoardCard.vue'
import type { BoardVisit } from './useBoard'

/** What is on no day, worst first; and what nobody has even planned: left bad, or a year ago. */
defineProps<{ board: Schemas['Board'] }>()
const emit = defineEmits<{
  open: [visit: BoardVisit]
  plan: [unit: Schemas['LeftUnit'], reason: string]
}>()
const GROUPS = [
  { key: 'left_bad', name: 'Left bad, nothing planned', reason: 'recheck' },
  { key: 'due', name: 'A year ago', reason: 'maintenance' },
] as const
</script>

<template>
  <section aria-label="Not on a day">
    <h2>
      Not on a day
      <span class="muted">worst first</span>
    </h2>
    <p v-if="!board.on_no_day.length" class="muted">Everything that is planned is on a day.</p>
    <BoardCard
      v-for="visit in board.on_no_day"
      :key="visit.id"
      :visit="visit"
      :dated="visit.technician_id !== null"
      @open="emit('open', visit)"
      @shift="emit('open', visit)"
    />
    <details v-for="group in GROUPS" :key="group.key" :open="group.key === 'left_bad'">
      <summary>
        {{ group.name }} · {{ group.key === 'due' ? board.due_in_all : board.left_bad.length }}
      </summary>
      <button
        v-for="unit in board[group.key]"
        :key="unit.id"
        type="button"
        class="unit"
        :aria-label="`Plan a visit of ${unit.name}`"
        @click="emit('plan', unit, group.reason)"
      >
        <span class="name">
          <StateMark :state="unit.level ? levelState(unit.level) : 'none'" :size="12" />
          <b>{{ unit.name }}</b>
        </span>
        <span>{{ unit.site }}</span>
        <span class="muted">{{ unit.title }}{{ unit.day ? `, ${shortDay(unit.day)}` : '' }}</span>
      </button>
    </details>
  </section>
</template>

<style scoped>
section {
  display: grid;
  gap: 8px;
  align-content: start;
}
h2 {
  font-size: 18px;
}
h2 span {
  font-size: 15px;
  font-weight: 400;
}
summary {
  min-height: 44px;
  line-height: 44px;
  font-weight: 600;
  cursor: pointer;
}
.unit {
  display: grid;
  width: 100%;
  min-height: 44px;
  margin-bottom: 6px;
  padding: 6px 10px;
  border: 1.5px dashed var(--line);
  border-radius: 6px;
  background: none;
  color: inherit;
  font: inherit;
  font-size: 15px;
  line-height: 1.25;
  text-align: left;
  cursor: pointer;
}
.name {
  display: flex;
  gap: 6px;
  align-items: baseline;
}
</style>
