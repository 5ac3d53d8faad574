<script setup lang="ts">
import { NSelect } from 'naive-ui'
import { computed, reactive, watch } from 'vue'
import type { Schemas } from '@/api/client'

const props = defineProps<{ log: Schemas['LogPage']; busy: boolean }>()
const emit = defineEmits<{ map: [mapping: Schemas['MappingIn']] }>()
const chosen = reactive<{
  time: number
  columns: Record<string, { column: number; unit: string }>
}>({ time: -1, columns: {} })
watch(
  () => props.log,
  (log) => {
    chosen.time = log.time_column ?? -1
    chosen.columns = Object.fromEntries(
      log.columns.map((c) => [c.quantity, { column: c.column ?? -1, unit: c.unit }]),
    )
  },
  { immediate: true },
)
const columns = computed(() => [
  { label: 'not in this log', value: -1 },
  ...props.log.headers.map((header, i) => ({
    label: `${i + 1}: ${header || '(no name)'}`,
    value: i,
  })),
])

function apply(): void {
  const used = Object.entries(chosen.columns).filter(([, c]) => c.column >= 0)
  emit('map', {
    columns: Object.fromEntries(used),
    time_column: chosen.time >= 0 ? chosen.time : null,
  })
}
</script>

<template>
  <form class="columns" @submit.prevent="apply">
    <h3>How the columns are read</h3>
    <p class="muted">
      {{ log.described }}.
      {{
        log.remembered
          ? 'As you confirmed for this instrument.'
          : 'Guessed from the names: change what is wrong.'
      }}
    </p>
    <label>
      <span>Time</span>
      <NSelect v-model:value="chosen.time" :options="columns" />
    </label>
    <label v-for="c in log.columns" :key="c.quantity">
      <span>{{ c.name }}</span>
      <NSelect
        v-if="chosen.columns[c.quantity]"
        v-model:value="chosen.columns[c.quantity]!.column"
        :options="columns"
      />
      <NSelect
        v-if="chosen.columns[c.quantity]"
        v-model:value="chosen.columns[c.quantity]!.unit"
        class="unit"
        :options="c.units.map((u) => ({ label: u, value: u }))"
      />
    </label>
    <div class="sample">
      <table>
        <thead>
          <tr>
            <th v-for="(h, i) in log.headers" :key="i">{{ h }}</th>
          </tr>
        </thead>
        <tbody>
          <tr v-for="(row, i) in log.sample.slice(0, 3)" :key="i">
            <td v-for="(cell, j) in row" :key="j">{{ cell }}</td>
          </tr>
        </tbody>
      </table>
    </div>
    <button class="btn strong" :disabled="busy">
      {{ busy ? 'Reading …' : 'Read it so, and remember' }}
    </button>
  </form>
</template>

<style scoped>
.columns {
  display: grid;
  gap: 10px;
}
label {
  display: grid;
  grid-template-columns: 130px 1fr 90px;
  gap: 8px;
  align-items: center;
}
.sample {
  overflow-x: auto;
}
td,
th {
  padding: 3px 10px 3px 0;
  text-align: left;
  white-space: nowrap;
  font-size: 14px;
  border-bottom: 1px solid var(--line);
}
</style>
