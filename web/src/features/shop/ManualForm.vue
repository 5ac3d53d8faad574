<script setup lang="ts">
import type { Schemas } from '@/api/client'
import TextInput from '@/ui/TextInput.vue'
import { emptyModel, withRow } from './modelForm'

type Rows = Schemas['ManualField'][]
/** The limits of the manual, row by row, each with its page. */
const props = defineProps<{
  rows: Rows
  checked: Rows
  quantities: Schemas['Named'][]
}>()
const emit = defineEmits<{ rows: [rows: Rows] }>()
const STAGES = [
  ['', 'every stage'],
  ['only', 'only stage'],
  ['low', 'low'],
  ['high', 'high'],
] as const
const BOUNDS = [
  ['low', 'Least'],
  ['high', 'Most'],
  ['page', 'Page'],
] as const

function set(index: number, field: keyof Schemas['ManualField'], event: Event): void {
  const typed = (event.target as HTMLInputElement).value
  emit('rows', withRow(props.rows, index, { [field]: typed }))
}
const without = (index: number) => props.rows.filter((_, n) => n !== index)
</script>

<template>
  <div v-for="(row, i) in rows" :key="i" class="line">
    <select :value="row.quantity" aria-label="Quantity" @change="set(i, 'quantity', $event)">
      <option v-for="q in quantities" :key="q.key" :value="q.key">{{ q.name }}</option>
    </select>
    <select :value="row.stage" aria-label="Stage" @change="set(i, 'stage', $event)">
      <option v-for="[key, name] in STAGES" :key="key" :value="key">{{ name }}</option>
    </select>
    <TextInput
      v-for="[field, name] in BOUNDS"
      :key="field"
      :value="row[field]"
      :placeholder="name.toLowerCase()"
      :aria-label="name"
      @change="set(i, field, $event)"
    />
    <button class="out" aria-label="Take this limit out" @click="emit('rows', without(i))">
      ×
    </button>
    <small v-if="checked[i]?.problem" class="said">{{ checked[i]!.problem }}</small>
  </div>
  <button class="btn" @click="emit('rows', [...rows, { ...emptyModel.limit }])">
    One more limit
  </button>
</template>

<style scoped src="./rows.css"></style>
