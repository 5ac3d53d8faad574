<script setup lang="ts">
import type { Schemas } from '@/api/client'
import TextInput from '@/ui/TextInput.vue'
import { withRow } from './modelForm'

type Rows = Schemas['PlateField'][]
/** The numbers of a plate, each with its unit and what is wrong with it. */
const props = defineProps<{ rows: Rows; checked: Rows }>()
const emit = defineEmits<{ rows: [rows: Rows] }>()
const problemOf = ({ key, stage }: Schemas['PlateField']) =>
  props.checked.find((row) => row.key === key && row.stage === stage)?.problem ?? ''

function set(index: number, event: Event): void {
  const text = (event.target as HTMLInputElement).value
  emit('rows', withRow(props.rows, index, { text }))
}
</script>

<template>
  <div class="plate">
    <label v-for="(row, i) in rows" :key="row.key + row.stage" :class="{ wrong: problemOf(row) }">
      {{ row.name }}
      <span class="with">
        <TextInput :value="row.text" :aria-label="row.name" @change="set(i, $event)" />
        <i>{{ row.unit }}</i>
      </span>
      <small v-if="problemOf(row)" class="said">{{ problemOf(row) }}</small>
    </label>
  </div>
</template>

<style scoped>
.plate {
  display: grid;
  grid-template-columns: repeat(auto-fill, minmax(200px, 1fr));
  gap: 10px 14px;
}
label {
  display: grid;
  gap: 2px;
  align-content: start;
  font-weight: 500;
}
.with {
  display: grid;
  grid-template-columns: 1fr auto;
  gap: 8px;
  align-items: center;
}
.with input {
  width: 100%;
  font-weight: 400;
}
.with i {
  min-width: 44px;
  font-style: normal;
  font-weight: 400;
  color: var(--muted);
}
.wrong input {
  border-color: var(--out);
}
.said {
  color: var(--out);
  font-weight: 500;
}
</style>
