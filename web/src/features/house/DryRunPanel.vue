<script setup lang="ts">
import type { Schemas } from '@/api/client'
import { levelState } from '@/ui/levels'
import { shortDay } from '@/ui/moments'
import StateMark from '@/ui/StateMark.vue'

/** What these rules would have made of the last visits. */
defineProps<{ found: Schemas['DryRunOut'] }>()
</script>

<template>
  <h3>{{ found.changed.length }} of the last {{ found.looked_at }} visits would differ</h3>
  <details v-for="row in found.changed" :key="row.id">
    <summary>
      <StateMark :state="levelState(row.before)" :size="13" />
      →
      <StateMark :state="levelState(row.after)" :size="13" />
      <span>{{ row.unit }}, {{ shortDay(row.day) }}</span>
    </summary>
    <p v-if="row.before !== row.after">
      <b>{{ row.before_title }} → {{ row.after_title }}</b>
    </p>
    <p v-for="line in row.says" :key="line">{{ line }}</p>
    <RouterLink :to="`/visits/${row.id}/unit`">Open it</RouterLink>
  </details>
</template>

<style scoped>
h3 {
  font-size: 16px;
}
summary {
  display: flex;
  gap: 7px;
  align-items: center;
  min-height: 44px;
  border-top: 1px solid var(--line);
  cursor: pointer;
}
p {
  margin: 0 0 4px 18px;
}
a {
  display: inline-flex;
  align-items: center;
  min-height: 44px;
  margin-left: 18px;
}
</style>
