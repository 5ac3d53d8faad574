<script setup lang="ts">
import { computed } from 'vue'
import type { Schemas } from '@/api/client'

/** The file's own first rows, and above each column what it is read as. */
const props = defineProps<{ log: Schemas['LogPage'] }>()
const readAs = computed(() => {
  const said = props.log.headers.map(() => '')
  for (const column of props.log.time_columns) said[column] = 'time'
  for (const c of props.log.columns) {
    if (c.column !== null) said[c.column] = `${c.name}, ${c.unit}`
  }
  for (const q of props.log.questions) {
    if (q.column !== null && !said[q.column]) said[q.column] = 'asked'
  }
  return said
})
</script>

<template>
  <div class="sample">
    <table>
      <caption class="muted">The file, and what each column is read as</caption>
      <thead>
        <tr class="read">
          <th v-for="(name, i) in readAs" :key="i" scope="col">{{ name || '–' }}</th>
        </tr>
        <tr>
          <th v-for="(h, i) in log.headers" :key="i" scope="col">{{ h || '(no name)' }}</th>
        </tr>
      </thead>
      <tbody>
        <tr v-for="(row, i) in log.sample.slice(0, 3)" :key="i">
          <td v-for="(cell, j) in row" :key="j">{{ cell }}</td>
        </tr>
      </tbody>
    </table>
  </div>
</template>

<style scoped>
.sample {
  overflow-x: auto;
}
caption {
  text-align: left;
  font-size: 14px;
}
td,
th {
  padding: 3px 14px 3px 0;
  text-align: left;
  white-space: nowrap;
  font-size: 14px;
  border-bottom: 1px solid var(--line);
}
.read th {
  font-weight: 700;
}
</style>
