<script setup lang="ts">
import { NSelect } from 'naive-ui'
import { computed, reactive, watch } from 'vue'
import type { Schemas } from '@/api/client'

const props = defineProps<{ log: Schemas['LogPage']; busy: boolean }>()
const emit = defineEmits<{ map: [mapping: Schemas['MappingIn']] }>()
const chosen = reactive<{ columns: Record<string, { column: number; unit: string }> }>({
  columns: {},
})
watch(
  () => props.log,
  (log) => {
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
  emit('map', { columns: Object.fromEntries(used) })
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
          : 'Proposed from names, units and numbers: change what is wrong.'
      }}
    </p>
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
</style>
