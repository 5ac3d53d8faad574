<script setup lang="ts">
import { reactive, watch } from 'vue'
import type { Schemas } from '@/api/client'
import Card from '@/ui/Card.vue'

/** Which column is which field; what is not told is left out. */
const props = defineProps<{ list: Schemas['ImportOut']; busy: boolean }>()
const emit = defineEmits<{ look: [columns: Record<string, string>] }>()
const columns = reactive<Record<string, string>>({})
watch(
  () => props.list.mapping,
  (mapping) =>
    props.list.columns.forEach((_, index) => (columns[index] = mapping[String(index)] ?? '')),
  { immediate: true },
)
const said = (field: string, index: number) =>
  Object.entries(columns).some(([at, key]) => key === field && Number(at) !== index)
const look = () =>
  emit('look', Object.fromEntries(Object.entries(columns).filter(([, field]) => field)))
</script>

<template>
  <Card title="Which column is what">
    <div class="across" tabindex="0" role="region" aria-label="Columns">
      <table>
        <thead>
          <tr>
            <th scope="col">Column</th>
            <th scope="col">is</th>
            <th scope="col">first rows</th>
          </tr>
        </thead>
        <tbody>
          <tr v-for="(column, index) in list.columns" :key="index">
            <th scope="row">{{ column }}</th>
            <td>
              <select v-model="columns[index]" :aria-label="`What ${column} is`">
                <option value="">left out</option>
                <option
                  v-for="field in list.fields"
                  :key="field.key"
                  :value="field.key"
                  :disabled="said(field.key, index)"
                >
                  {{ field.label }}{{ field.unit ? `, ${field.unit}` : '' }}
                </option>
              </select>
            </td>
            <td class="muted">{{ list.sample.map((row) => row[index]).join(' · ') }}</td>
          </tr>
        </tbody>
      </table>
    </div>
    <button class="btn strong" :disabled="busy" @click="look">
      {{ list.state === 'looked' ? 'Look through it again' : 'Look through it' }}
    </button>
  </Card>
</template>

<style scoped>
.across {
  overflow-x: auto;
}
table {
  width: 100%;
  border-collapse: collapse;
}
th,
td {
  padding: 5px 14px 5px 0;
  border-bottom: 1px solid var(--line);
  text-align: left;
}
tbody th {
  font-weight: 500;
}
select {
  min-height: 44px;
  padding: 0 10px;
  border: 1.5px solid var(--line);
  border-radius: 6px;
  background: var(--plate);
  color: inherit;
  font: inherit;
}
.btn {
  justify-self: start;
}
</style>
