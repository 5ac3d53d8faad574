<script setup lang="ts">
import type { Schemas } from '@/api/client'
import { useDesk } from '@/parts/desk/desk'
import Card from '@/ui/Card.vue'
import StateMark from '@/ui/StateMark.vue'

/** The questions of the first minute, each answered with one touch. */
defineProps<{ triage: Schemas['TriageOut'][]; writable: boolean }>()
const desk = useDesk()
const stateOf = (answer: string) =>
  answer === 'ok' || answer === 'read' ? 'in' : answer ? 'out' : 'none'
</script>

<template>
  <Card title="One minute of triage">
    <div v-for="row in triage" :key="row.key" class="triage">
      <StateMark :state="stateOf(row.answered)" />
      <span>{{ row.question }}</span>
      <button v-if="row.begin" class="btn" :disabled="!writable" @click="desk.begin(row.begin)">
        Read it
      </button>
      <template v-else>
        <button class="btn" :disabled="!writable" @click="desk.write(row.good)">OK</button>
        <button class="btn" :disabled="!writable" @click="desk.write(row.bad)">not OK</button>
      </template>
    </div>
  </Card>
</template>

<style scoped>
.triage {
  display: grid;
  grid-template-columns: 18px 1fr auto auto;
  gap: 10px;
  align-items: center;
}
.btn:nth-child(3):last-child {
  grid-column: 3 / -1;
}
@media (max-width: 800px) {
  .triage {
    grid-template-columns: 18px 1fr 1fr;
  }
  .triage > span {
    grid-column: 2 / -1;
  }
  .btn:nth-child(3) {
    grid-column: 2;
  }
  .btn:nth-child(3):last-child {
    grid-column: 2 / -1;
  }
}
</style>
