<script setup lang="ts">
import type { Schemas } from '@/api/client'
import TextInput from '@/ui/TextInput.vue'
import {
  withoutStation,
  withStation,
  withStationField,
  withStationUp,
  type KindDocument,
} from './kindForm'

/** The stations of one path of a kind, from top to bottom. */
const props = defineProps<{
  document: KindDocument
  path: number
  shipped: boolean
  blamed: string
  quantities: Schemas['Named'][]
}>()
const emit = defineEmits<{ change: [document: KindDocument] }>()
const STAGES = ['none', 'each', 'top']

function set(index: number, field: string, event: Event): void {
  const typed = (event.target as HTMLInputElement).value
  emit('change', withStationField(props.document, props.path, index, field, typed))
}
</script>

<template>
  <div
    class="scroll"
    tabindex="0"
    role="region"
    :aria-label="`Stations of ${document.paths[path]!.name}`"
  >
    <table>
      <thead>
        <tr>
          <th scope="col">Key</th>
          <th scope="col">Name</th>
          <th scope="col">Reads</th>
          <th scope="col">Stages</th>
          <th scope="col">Caution</th>
          <td />
        </tr>
      </thead>
      <tbody>
        <tr
          v-for="(row, i) in document.paths[path]!.stations"
          :key="i"
          :class="{ blamed: row.key === blamed }"
        >
          <td>
            <TextInput
              :value="row.key"
              :disabled="shipped"
              class="key"
              :aria-label="`Key of ${row.name}`"
              @change="set(i, 'key', $event)"
            />
          </td>
          <td>
            <TextInput
              :value="row.name"
              :disabled="shipped"
              class="name"
              :aria-label="`Name of ${row.name}`"
              @change="set(i, 'name', $event)"
            />
          </td>
          <td>
            <select
              :value="row.quantity ?? ''"
              :disabled="shipped"
              class="reads"
              :aria-label="`Quantity of ${row.name}`"
              @change="set(i, 'quantity', $event)"
            >
              <option value="">a look only</option>
              <option v-for="q in quantities" :key="q.key" :value="q.key">{{ q.name }}</option>
            </select>
          </td>
          <td>
            <select
              :value="row.stages ?? 'none'"
              :disabled="shipped"
              :aria-label="`Stages of ${row.name}`"
              @change="set(i, 'stages', $event)"
            >
              <option v-for="stage in STAGES" :key="stage">{{ stage }}</option>
            </select>
          </td>
          <td>
            <TextInput
              :value="row.caution ?? ''"
              :disabled="shipped"
              class="caution"
              :aria-label="`Caution at ${row.name}`"
              @change="set(i, 'caution', $event)"
            />
          </td>
          <td v-if="!shipped" class="moves">
            <button
              :aria-label="`Move ${row.name} up`"
              @click="emit('change', withStationUp(document, path, i))"
            >
              ↑
            </button>
            <button
              :aria-label="`Take ${row.name} out`"
              @click="emit('change', withoutStation(document, path, i))"
            >
              ×
            </button>
          </td>
        </tr>
      </tbody>
    </table>
  </div>
  <button v-if="!shipped" class="btn" @click="emit('change', withStation(document, path))">
    One more station
  </button>
</template>

<style scoped>
.scroll {
  overflow-x: auto;
}
table {
  border-collapse: collapse;
}
th {
  padding: 2px 6px;
  text-align: left;
}
td {
  padding: 2px 3px;
}
.key {
  width: 150px;
}
.name {
  width: 170px;
}
.reads {
  width: 180px;
}
.caution {
  width: 260px;
}
.blamed input {
  border-color: var(--out);
  border-width: 2px;
}
.moves {
  white-space: nowrap;
}
.moves button {
  min-width: 44px;
  min-height: 44px;
  border: 0;
  background: none;
  font-size: 20px;
  color: var(--muted);
}
.btn {
  justify-self: start;
}
</style>
