<script setup lang="ts">
import type { Schemas } from '@/api/client'
import TextInput from '@/ui/TextInput.vue'
import type { Draft } from './draft'

/** Every question of the house with its answers and their reasons, and the house's own limits. */
defineProps<{ house: Schemas['HouseRulesOut']; found: Schemas['DryRunOut'] | null }>()
const draft = defineModel<Draft>({ required: true })
const numberOf = (event: Event) => Number((event.target as HTMLInputElement).value)

const answer = (question: string, key: string) =>
  (draft.value = { ...draft.value, answers: { ...draft.value.answers, [question]: key } })
const limit = (key: string, value: number) =>
  (draft.value = { ...draft.value, limits: { ...draft.value.limits, [key]: value } })
</script>

<template>
  <fieldset v-for="question in house.questions" :key="question.key">
    <legend>
      {{ question.name }}
      <small v-if="found?.by_rule[question.key] !== undefined">
        alone changes {{ found.by_rule[question.key] }} of {{ found.looked_at }}
      </small>
    </legend>
    <label
      v-for="row in question.answers"
      :key="row.key"
      :class="{ on: draft.answers[question.key] === row.key }"
    >
      <input
        type="radio"
        :name="question.key"
        :value="row.key"
        :checked="draft.answers[question.key] === row.key"
        @change="answer(question.key, row.key)"
      />
      <span>{{ row.reason }}</span>
      <small v-if="question.chosen === row.key" class="muted">today</small>
    </label>
  </fieldset>
  <fieldset>
    <legend>
      House limits
      <small class="muted">plate and manual come first</small>
    </legend>
    <label v-for="row in house.limits" :key="row.key" class="limit">
      <span>{{ row.name }}</span>
      <TextInput
        type="number"
        :min="row.least"
        :max="row.most"
        :step="row.most > 1 ? 1 : 0.01"
        :value="draft.limits[row.key]"
        @change="limit(row.key, numberOf($event))"
      />
      <small class="muted">{{ row.unit }} {{ row.least }} to {{ row.most }}</small>
    </label>
  </fieldset>
</template>

<style scoped>
fieldset {
  display: grid;
  margin: 0;
  padding: 6px 14px 8px;
  border: 1.5px solid var(--line);
  border-radius: 8px;
  background: var(--plate);
}
legend {
  margin-left: -6px;
  padding: 0 6px;
  font-size: 17px;
  font-weight: 600;
}
legend small {
  margin-left: 6px;
  font-size: 15px;
  font-weight: 500;
  color: var(--near-ink);
}
legend .muted {
  color: var(--muted);
}
label {
  display: grid;
  grid-template-columns: 24px 1fr auto;
  gap: 8px;
  align-items: center;
  min-height: 44px;
}
label + label {
  border-top: 1px dashed var(--line);
}
.on span {
  font-weight: 600;
}
input[type='radio'] {
  width: 20px;
  height: 20px;
  accent-color: var(--in);
}
.limit {
  grid-template-columns: 1fr 110px 130px;
}
@media (max-width: 800px) {
  .limit {
    grid-template-columns: 1fr 96px;
  }
  .limit small {
    grid-column: 1 / -1;
  }
}
</style>
