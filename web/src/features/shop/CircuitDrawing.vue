<script setup lang="ts">
import { computed, ref } from 'vue'
import type { Schemas } from '@/api/client'
import RungDrawing from '@/parts/drawing/RungDrawing.vue'
import ChipRow from '@/ui/ChipRow.vue'

const props = defineProps<{ check: Schemas['CircuitCheck'] }>()
defineEmits<{ state: [key: string] }>()
const load = ref('')
const rung = computed(
  () => props.check.rungs.find((r) => r.load === load.value) ?? props.check.rungs[0],
)
const nodes = computed(() => Object.keys(props.check.solved[0]?.volts ?? {}))
</script>

<template>
  <div class="drawing">
    <ChipRow
      label="State"
      :options="check.states"
      :chosen="check.state"
      @choose="(key) => $emit('state', key)"
    />
    <ChipRow
      label="Rung"
      :options="check.rungs.map((r) => ({ key: r.load, name: r.name }))"
      :chosen="rung?.load ?? ''"
      @choose="(key) => (load = key)"
    />
    <RungDrawing v-if="rung" :rung="rung" :leads="['', '']" />
    <p>
      <b>{{ check.call }}</b>
      <span class="muted">{{ check.faults }} fault modes.</span>
    </p>
    <details>
      <summary>Every node in every state, volts to common</summary>
      <div class="scroll" tabindex="0" role="region" aria-label="The circuit">
        <table>
          <thead>
            <tr>
              <th>State</th>
              <th v-for="n in nodes" :key="n">{{ n }}</th>
            </tr>
          </thead>
          <tbody>
            <tr v-for="s in check.solved" :key="s.key">
              <th>{{ s.name }}</th>
              <td v-for="n in nodes" :key="n">{{ s.volts[n] }}</td>
            </tr>
          </tbody>
        </table>
      </div>
    </details>
  </div>
</template>

<style scoped>
.drawing {
  display: grid;
  gap: 8px;
}
summary {
  min-height: 44px;
  cursor: pointer;
  color: var(--in);
}
.scroll {
  overflow-x: auto;
}
table {
  border-collapse: collapse;
}
th,
td {
  padding: 3px 9px;
  text-align: right;
  border-bottom: 1px solid var(--line);
  white-space: nowrap;
}
tbody th {
  text-align: left;
  font-weight: 500;
}
</style>
