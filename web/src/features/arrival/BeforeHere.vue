<script setup lang="ts">
import { computed } from 'vue'
import type { Schemas } from '@/api/client'
import Card from '@/ui/Card.vue'
import { levelState } from '@/ui/levels'
import { shortDay } from '@/ui/moments'
import StateMark from '@/ui/StateMark.vue'

/** What came before: complaint, earlier visits with what was advised and refused at each, readings from when it was healthy. */
const props = defineProps<{ page: Schemas['VisitPage']; arrival: Schemas['ArrivalOut'] }>()
const MOST = 4
const shown = computed(() => props.page.earlier.slice(0, MOST))
/** What stands at none of the visits that are shown: added later, or advised long ago. */
const added = computed(() => {
  const told = shown.value.flatMap((visit) => visit.advice)
  return props.arrival.refused.filter((words) => !told.includes(words))
})
</script>

<template>
  <Card title="What came before">
    <p v-if="page.complaint">
      <b>“{{ page.complaint }}”</b>
    </p>
    <p v-if="!page.earlier.length" class="muted">Nobody has written on this unit before.</p>
    <p v-for="visit in shown" :key="visit.id" class="before">
      <StateMark :state="levelState(visit.level)" :size="14" />
      <span>
        <b>{{ shortDay(visit.day) }}</b>
        {{ visit.reason }}, {{ visit.technician }}: {{ visit.title.toLowerCase() }}.
        <span class="muted">{{ visit.words }}</span>
        <b v-for="words in visit.advice" :key="words" class="advice">{{ words }}</b>
      </span>
    </p>
    <p v-for="words in added" :key="words" class="before">
      <StateMark state="near" :size="14" />
      {{ words }}
    </p>
    <details v-if="arrival.healthy">
      <summary>
        What it read when it was healthy,
        {{ arrival.healthy.day ? shortDay(arrival.healthy.day) : '' }}
      </summary>
      <p class="muted">{{ arrival.healthy.readings.join(' · ') }}</p>
    </details>
  </Card>
</template>

<style scoped>
.before {
  display: flex;
  gap: 8px;
  align-items: baseline;
  line-height: 1.25;
}
.advice {
  display: block;
  font-weight: 500;
}
.before svg {
  flex: none;
  translate: 0 2px;
}
summary {
  min-height: 44px;
  display: flex;
  align-items: center;
  cursor: pointer;
  color: var(--in);
}
</style>
