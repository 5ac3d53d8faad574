<script setup lang="ts">
import { computed, ref } from 'vue'
import { useRouter } from 'vue-router'
import { planVisit } from '@/api/firm'
import type { Schemas } from '@/api/client'
import { useAsyncAction } from '@/api/useAsyncAction'
import ChipRow from '@/ui/ChipRow.vue'
import { longDay, todayAt } from '@/ui/moments'

const props = defineProps<{ unit: number; zone: string; reasons: Record<string, string> }>()
const emit = defineEmits<{ planned: [] }>()
const router = useRouter()
const todayIso = todayAt(props.zone)
const whys = computed(() => Object.entries(props.reasons).map(([key, name]) => ({ key, name })))
const reason = ref('')
const day = ref(todayIso)
const complaint = ref('')
const done = ref<Schemas['PlannedOut'] | null>(null)
const { trouble, busy, run } = useAsyncAction()
const plan = () =>
  run(async () => {
    done.value = await planVisit(props.unit, {
      reason: reason.value,
      day: day.value,
      complaint: complaint.value,
    })
    if (day.value === todayIso) await router.push(`/visits/${done.value.id}/arrival`)
    else emit('planned')
  })
</script>

<template>
  <details class="plan">
    <summary>New visit: today or another day</summary>
    <ChipRow label="Why" :options="whys" :chosen="reason" @choose="(key) => (reason = key)" />
    <div class="pair">
      <label>
        Day
        <input v-model="day" type="date" :min="todayIso" />
      </label>
      <label class="words">
        In the customer's words
        <input v-model="complaint" maxlength="500" placeholder="Cold since last night" />
      </label>
      <button class="btn strong" :disabled="busy || !reason || !day" @click="plan">
        {{ day === todayIso ? 'Begin now' : 'Put on the round' }}
      </button>
    </div>
    <p v-if="trouble" class="trouble" role="alert">{{ trouble }}</p>
    <p v-if="done && !trouble">On the round of {{ done.technician }}, {{ longDay(done.day) }}.</p>
  </details>
</template>

<style scoped>
.plan {
  background: var(--plate);
  border: 1.5px solid var(--line);
  border-radius: 8px;
  padding: 0 16px;
}
.plan[open] {
  padding-bottom: 14px;
}
summary {
  min-height: 44px;
  line-height: 44px;
  font-weight: 600;
  cursor: pointer;
}
.pair {
  display: flex;
  gap: 7px 14px;
  flex-wrap: wrap;
  align-items: end;
  margin-top: 6px;
}
.trouble {
  color: var(--out);
  font-weight: 500;
}
label {
  display: grid;
  gap: 3px;
  font-size: 15px;
  color: var(--muted);
}
.words {
  flex: 1 1 260px;
}
input {
  min-height: 44px;
  padding: 0 10px;
  font: inherit;
  font-size: 17px;
  color: var(--ink);
  background: var(--paper);
  border: 1.5px solid var(--line);
  border-radius: 6px;
  color-scheme: inherit;
}
</style>
