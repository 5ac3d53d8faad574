<script setup lang="ts">
import type { Schemas } from '@/api/client'
import { useDesk } from '@/parts/desk/desk'
import Card from '@/ui/Card.vue'
import CodeTapper from './CodeTapper.vue'

/** The board's code, tapped as it flashes: it goes with the power. */
defineProps<{ arrival: Schemas['ArrivalOut'] }>()
const desk = useDesk()
</script>

<template>
  <Card title="The code, before the power goes off">
    <p v-if="arrival.code_note" class="note">{{ arrival.code_note }}</p>
    <CodeTapper :codes="arrival.codes" :shown="arrival.code_style" @begin="(t) => desk.begin(t)" />
  </Card>
</template>

<style scoped>
.note {
  padding: 7px 12px;
  border-left: 4px solid var(--near);
  background: var(--paper);
}
</style>
