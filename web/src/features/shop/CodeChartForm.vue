<script setup lang="ts">
import type { Schemas } from '@/api/client'
import TextInput from '@/ui/TextInput.vue'
import { emptyModel, withRow } from './modelForm'

type Rows = Schemas['CodeField'][]
/** The code chart of a model, and which state of the control each code speaks of. */
const props = defineProps<{ rows: Rows; states: Schemas['Named'][] }>()
const emit = defineEmits<{ rows: [rows: Rows] }>()
const WORDS = [
  ['pattern', 'Code', 'code'],
  ['meaning', 'Meaning', 'what the chart says'],
] as const

function set(index: number, field: keyof Schemas['CodeField'], event: Event): void {
  const typed = (event.target as HTMLInputElement).value
  emit('rows', withRow(props.rows, index, { [field]: typed }))
}
const without = (index: number) => props.rows.filter((_, n) => n !== index)
</script>

<template>
  <div v-for="(row, i) in rows" :key="i" class="line code">
    <TextInput
      v-for="[field, name, hint] in WORDS"
      :key="field"
      :value="row[field]"
      :placeholder="hint"
      :aria-label="name"
      @change="set(i, field, $event)"
    />
    <select :value="row.state" aria-label="State of the control" @change="set(i, 'state', $event)">
      <option value="">speaks of something else</option>
      <option v-for="s in states" :key="s.key" :value="s.key">{{ s.name }}</option>
    </select>
    <button class="out" aria-label="Take this code out" @click="emit('rows', without(i))">×</button>
  </div>
  <button class="btn" @click="emit('rows', [...rows, { ...emptyModel.code }])">
    One more code
  </button>
</template>

<style scoped src="./rows.css"></style>
