<script setup lang="ts">
import TextInput from '@/ui/TextInput.vue'
import { withField, withoutPart, withPart, type CircuitDocument, type PartRow } from './circuitForm'

const props = defineProps<{
  document: CircuitDocument
  kinds: string[]
  families: string[]
  blamed: string
  locked: boolean
}>()
const emit = defineEmits<{ change: [document: CircuitDocument] }>()
const FIELDS: { field: string; title: string; width: string }[] = [
  { field: 'key', title: 'Key', width: '128px' },
  { field: 'name', title: 'Name', width: '170px' },
  { field: 'nodes', title: 'Nodes', width: '92px' },
  { field: 'ohm', title: 'Ω', width: '74px' },
  { field: 'volts', title: 'V', width: '64px' },
  { field: 'closed_when', title: 'Closed when', width: '130px' },
]
const text = (part: PartRow, field: string) => {
  const value = part[field]
  return Array.isArray(value) ? value.join(' ') : String(value ?? '')
}
const set = (index: number, field: string, event: Event) =>
  emit('change', withField(props.document, index, field, (event.target as HTMLInputElement).value))
</script>

<template>
  <div class="scroll" tabindex="0" role="region" aria-label="The parts">
    <table>
      <thead>
        <tr>
          <th>Kind</th>
          <th v-for="f in FIELDS" :key="f.field">{{ f.title }}</th>
          <th>Family: faults and tests</th>
          <td />
        </tr>
      </thead>
      <tbody>
        <tr v-for="(part, i) in document.parts" :key="i" :class="{ blamed: part.key === blamed }">
          <td>
            <select
              :value="part.kind"
              :disabled="locked"
              aria-label="Kind"
              @change="set(i, 'kind', $event)"
            >
              <option v-for="kind in kinds" :key="kind">{{ kind }}</option>
            </select>
          </td>
          <td v-for="f in FIELDS" :key="f.field">
            <TextInput
              :value="text(part, f.field)"
              :style="{ width: f.width }"
              :disabled="locked"
              :aria-label="`${f.title} of ${part.name}`"
              @change="set(i, f.field, $event)"
            />
          </td>
          <td>
            <select
              :value="part.family ?? 'none'"
              :disabled="locked"
              aria-label="Family"
              @change="set(i, 'family', $event)"
            >
              <option v-for="family in families" :key="family">{{ family }}</option>
            </select>
          </td>
          <td>
            <button
              v-if="!locked"
              class="out"
              :aria-label="`Take ${part.name} out`"
              @click="emit('change', withoutPart(document, i))"
            >
              ×
            </button>
          </td>
        </tr>
      </tbody>
    </table>
    <button v-if="!locked" class="btn" @click="emit('change', withPart(document))">
      One more part
    </button>
  </div>
</template>

<style scoped>
.scroll {
  overflow-x: auto;
}
table {
  border-collapse: collapse;
  margin-bottom: 10px;
}
th {
  text-align: left;
  font-weight: 600;
  padding: 4px 6px;
  white-space: nowrap;
}
td {
  padding: 2px 3px;
}
input,
select {
  font: inherit;
  min-height: 38px;
  padding: 2px 8px;
  border: 1.5px solid var(--line);
  border-radius: 5px;
  background: var(--plate);
  color: var(--ink);
}
input:disabled,
select:disabled {
  opacity: 0.75;
}
.blamed input,
.blamed select {
  border-color: var(--out);
  border-width: 2px;
}
.out {
  min-width: 38px;
  min-height: 38px;
  border: 0;
  background: none;
  font-size: 22px;
  color: var(--muted);
}
</style>
