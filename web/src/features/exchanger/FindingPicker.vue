<script setup lang="ts">
import type { Schemas } from '@/api/client'
import { levelState } from '@/ui/levels'
import StateMark from '@/ui/StateMark.vue'
import type { Spot } from './line'

/** What is at the spot that was touched. */
defineProps<{ spot: Spot; findings: Schemas['FindingChoice'][] }>()
defineEmits<{ place: [starter: string]; nothing: [] }>()
</script>

<template>
  <div class="kinds" role="group" :aria-label="`What is at ${spot.part}, ${spot.zone}?`">
    <b>{{ spot.part }}, {{ spot.zone }}</b>
    <button
      v-for="finding in findings"
      :key="finding.starter"
      class="btn kind"
      @click="$emit('place', finding.starter)"
    >
      <StateMark :state="levelState(finding.level)" :size="13" />
      {{ finding.name }}
    </button>
    <button class="btn" @click="$emit('nothing')">Nothing</button>
  </div>
</template>

<style scoped>
.kinds {
  position: sticky;
  bottom: 8px;
  z-index: 2;
  display: flex;
  flex-wrap: wrap;
  gap: 7px;
  align-items: center;
  padding: 10px;
  border: 2px solid var(--in);
  border-radius: 8px;
  background: var(--plate);
  box-shadow: var(--lifted);
}
b {
  flex-basis: 100%;
  font-size: 18px;
}
.kind {
  display: inline-flex;
  gap: 8px;
  align-items: center;
  padding: 0 12px;
}
</style>
