<script setup lang="ts">
import { planVisit } from '@/api/firm'
import type { Schemas } from '@/api/client'
import { useAsyncAction } from '@/api/useAsyncAction'
import Card from '@/ui/Card.vue'
import { longDay, todayAt } from '@/ui/moments'

/** Visits to come, each put on the round with one touch. */
const props = defineProps<{ returns: Schemas['ReturnOut'][]; page: Schemas['VisitPage'] }>()
const emit = defineEmits<{ planned: [] }>()
const today = todayAt(props.page.zone)
const { trouble, busy, run } = useAsyncAction()
const plan = (row: Schemas['ReturnOut'], day: string) =>
  run(async () => {
    await planVisit(props.page.unit_id, {
      reason: row.reason,
      day,
      complaint: row.why,
      parts: row.parts,
      returns_from: props.page.id,
    })
    emit('planned')
  })
</script>

<template>
  <Card title="Visits to come">
    <p v-for="row in returns" :key="row.reason" class="return">
      <span>
        <b>{{ row.day ? longDay(row.day) : 'no day yet' }}</b>
        · {{ row.name }}
        <span class="muted">{{ row.why }}{{ row.said ? '' : ' (worked out)' }}</span>
        <span v-if="row.parts.length" class="muted">to fit: {{ row.parts.join(', ') }}</span>
      </span>
      <span v-if="row.planned" class="planned">on the round</span>
      <button
        v-else-if="row.day && row.day >= today"
        class="btn"
        :disabled="busy"
        @click="plan(row, row.day)"
      >
        Put on the round
      </button>
    </p>
    <p v-if="trouble" class="trouble" role="alert">{{ trouble }}</p>
    <a
      v-if="returns.some((row) => row.day)"
      class="btn calendar"
      :href="`/api/visits/${page.id}/plan.ics`"
    >
      Into a calendar
    </a>
  </Card>
</template>

<style scoped>
.return {
  display: flex;
  flex-wrap: wrap;
  gap: 6px 14px;
  align-items: center;
  justify-content: space-between;
}
.planned {
  color: var(--in);
  font-weight: 600;
}
.trouble {
  color: var(--out);
  font-weight: 500;
}
.calendar {
  justify-self: start;
}
</style>
