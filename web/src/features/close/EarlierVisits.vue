<script setup lang="ts">
import type { Schemas } from '@/api/client'
import Card from '@/ui/Card.vue'
import { levelState } from '@/ui/levels'
import { shortDay } from '@/ui/moments'
import StateMark from '@/ui/StateMark.vue'

/** The visits before this one, with what was advised and read. */
defineProps<{ visits: Schemas['EarlierVisit'][] }>()
</script>

<template>
  <Card title="Before this visit">
    <article v-for="visit in visits" :key="visit.id">
      <h3>
        <StateMark :state="levelState(visit.level)" />
        {{ shortDay(visit.day) }} · {{ visit.reason }} · {{ visit.technician }}
      </h3>
      <p>{{ visit.words }}</p>
      <p v-for="line in visit.advice" :key="line">
        <b>{{ line }}</b>
      </p>
      <p class="muted">{{ visit.readings.join(' · ') }}</p>
    </article>
  </Card>
</template>

<style scoped>
article {
  padding: 8px 0;
  border-bottom: 1px dashed var(--line);
}
h3 {
  display: flex;
  gap: 8px;
  align-items: center;
  font-size: 16px;
  font-weight: 600;
}
</style>
