<script setup lang="ts">
import { computed, reactive, ref, watch } from 'vue'
import type { Schemas } from '@/api/client'
import ChipRow from '@/ui/ChipRow.vue'
import type { BoardVisit } from './useBoard'

/** A visit's plan: whose day, when, with whom, why; or cancelled, with a reason. */
const props = defineProps<{
  visit: BoardVisit
  board: Schemas['Board']
  trouble: string
  busy: boolean
}>()
const emit = defineEmits<{
  keep: [more: Partial<Schemas['PlanChangeIn']>]
  cancel: [why: string]
  close: []
}>()
const asPlanned = () => ({
  technician: props.visit.technician_id ?? 0,
  day: props.visit.day,
  start: props.visit.start?.slice(0, 5) ?? '',
  helpers: [...props.visit.helpers],
  reason: props.visit.reason_key,
  complaint: props.visit.complaint,
})
const plan = reactive(asPlanned())
const why = ref('')
watch(
  () => [props.visit.id, props.visit.plan_version],
  () => Object.assign(plan, asPlanned()),
)
const people = computed(() => [
  { key: '0', name: 'nobody yet' },
  ...props.board.people.map((one) => ({ key: String(one.id), name: one.name })),
])
const reasons = computed(() =>
  Object.entries(props.board.reasons).map(([key, name]) => ({ key, name })),
)
const helps = (id: number) => plan.helpers.includes(id)
function toggle(id: number): void {
  plan.helpers = helps(id) ? plan.helpers.filter((one) => one !== id) : [...plan.helpers, id]
}
const keep = () =>
  emit('keep', {
    ...plan,
    technician: plan.technician || null,
    start: plan.start || null,
    helpers: plan.technician ? plan.helpers.filter((one) => one !== plan.technician) : [],
  })
</script>

<template>
  <div class="sheet">
    <p>
      <b>{{ visit.label }} · {{ visit.place }}</b>
      <span>{{ visit.site }}</span>
    </p>
    <p v-if="visit.since || visit.there" class="muted">
      {{ [visit.since, visit.there].filter(Boolean).join(' · ') }}
    </p>
    <p v-if="visit.task">To do: {{ visit.task }}</p>
    <p class="links">
      <RouterLink :to="`/visits/${visit.id}/arrival`">Open the visit</RouterLink>
      <RouterLink :to="`/units/${visit.unit_id}`">The unit’s record</RouterLink>
    </p>
    <form v-if="visit.state !== 'closed'" @submit.prevent="keep">
      <ChipRow
        label="Whose"
        :options="people"
        :chosen="String(plan.technician)"
        @choose="(key) => (plan.technician = Number(key))"
      />
      <div class="pair">
        <label>
          {{ plan.technician ? 'Day' : 'Wanted by' }}
          <input v-model="plan.day" type="date" name="plan_day" required />
        </label>
        <label>
          At
          <input v-model="plan.start" type="time" name="plan_start" />
        </label>
      </div>
      <fieldset v-if="plan.technician">
        <legend>With</legend>
        <template v-for="one in board.people" :key="one.id">
          <label v-if="one.id !== plan.technician" class="with">
            <input type="checkbox" :checked="helps(one.id)" @change="toggle(one.id)" />
            {{ one.name }}
          </label>
        </template>
      </fieldset>
      <ChipRow
        label="Why"
        :options="reasons"
        :chosen="plan.reason"
        @choose="(key) => (plan.reason = key)"
      />
      <label>
        In the customer’s words
        <input v-model="plan.complaint" maxlength="500" name="plan_complaint" />
      </label>
      <p v-if="trouble" class="bad" role="alert">{{ trouble }}</p>
      <button class="btn strong" :disabled="busy">Keep this plan</button>
    </form>
    <details v-if="visit.state === 'planned'">
      <summary>Cancel this visit</summary>
      <form class="cancel" @submit.prevent="emit('cancel', why)">
        <label>
          Why
          <input v-model="why" name="cancel_why" maxlength="300" />
        </label>
        <button class="btn" :disabled="busy || !why.trim()">Cancel the visit</button>
      </form>
    </details>
  </div>
</template>

<style scoped src="./sheet.css"></style>
