<script setup lang="ts">
import type { Schemas } from '@/api/client'
import { useDesk } from '@/parts/desk/desk'
import Card from '@/ui/Card.vue'

/** How much of the exchanger was seen, and what share of real breaches that would have found. */
defineProps<{ exchanger: Schemas['ExchangerOut']; method: string; writable: boolean }>()
const desk = useDesk()
</script>

<template>
  <Card title="Seen so far">
    <p v-if="!exchanger.coverage.length" class="muted">
      Nothing has been looked at yet, or nobody wrote it down.
    </p>
    <p v-for="row in exchanger.coverage" :key="row.says" class="cover">
      <span>{{ row.says }}</span>
      <i><i :style="{ width: `${row.finds_pct}%` }" /></i>
      <span class="muted">finds about {{ row.finds_pct }} % of real breaches</span>
    </p>
    <button class="btn" :disabled="!writable" @click="desk.write(`${exchanger.whole}${method}`)">
      All seen by {{ method }}, nothing found
    </button>
    <button class="btn" :disabled="!writable" @click="desk.begin('exchanger ok ', 'exchanger')">
      Only some of it
    </button>
  </Card>
</template>

<style scoped>
.cover {
  display: grid;
  gap: 3px;
}
.cover > i {
  height: 7px;
  border-radius: 4px;
  background: var(--track);
}
.cover i i {
  display: block;
  height: 100%;
  border-radius: 4px;
  background: var(--in);
}
.cover .muted {
  font-size: 15px;
}
</style>
