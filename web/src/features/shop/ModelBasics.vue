<script setup lang="ts">
import type { Schemas } from '@/api/client'
import TextInput from '@/ui/TextInput.vue'
import { withRow } from './modelForm'

type Fields = Schemas['ModelFields']
/** Maker, kind, circuit, fuel, and what a plate says in words. */
defineProps<{ fields: Fields; choices: Schemas['Choices'] | undefined }>()
const emit = defineEmits<{ set: [changes: Partial<Fields>] }>()
const value = (event: Event) => (event.target as HTMLInputElement).value
</script>

<template>
  <div class="grid">
    <label>
      Maker
      <TextInput :value="fields.maker" @change="emit('set', { maker: value($event) })" />
    </label>
    <label>
      Kind of unit
      <select :value="fields.kind" @change="emit('set', { kind: value($event) })">
        <option v-for="k in choices?.unit_kinds" :key="k.key" :value="k.key">{{ k.name }}</option>
      </select>
    </label>
    <label>
      Circuit
      <select :value="fields.circuit" @change="emit('set', { circuit: value($event) })">
        <option value="">as its kind has it</option>
        <option v-for="c in choices?.circuits" :key="c.key" :value="c.key">{{ c.name }}</option>
      </select>
    </label>
    <label>
      Fuel
      <select :value="fields.fuel" @change="emit('set', { fuel: value($event) })">
        <option v-for="f in choices?.fuels" :key="f.key" :value="f.key">{{ f.name }}</option>
      </select>
    </label>
    <label>
      Cells, tubes or sections
      <TextInput
        type="number"
        min="1"
        :value="fields.exchanger_cells"
        @change="emit('set', { exchanger_cells: Number(value($event)) })"
      />
    </label>
    <label v-for="(row, i) in fields.choices" :key="row.key">
      {{ row.name }}
      <select
        :value="row.value"
        @change="emit('set', { choices: withRow(fields.choices, i, { value: value($event) }) })"
      >
        <option value="">not on the plate</option>
        <option v-for="o in row.options" :key="o.key" :value="o.key">{{ o.name }}</option>
      </select>
    </label>
  </div>
</template>

<style scoped>
.grid {
  display: grid;
  grid-template-columns: repeat(auto-fit, minmax(160px, 1fr));
  gap: 10px 14px;
}
label {
  display: grid;
  gap: 2px;
  align-content: start;
  font-weight: 500;
}
input,
select {
  width: 100%;
  font-weight: 400;
}
</style>
