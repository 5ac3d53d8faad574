<script setup lang="ts">
import { computed } from 'vue'
import type { Schemas } from '@/api/client'
import { useBar } from '@/parts/desk/bar'

/** The instruments in hand in few words; touched, they are chosen. One out of calibration is seen from here. */
const props = defineProps<{ instruments: Schemas['InstrumentOut'][] }>()
const bar = useBar()
const held = computed(() => props.instruments.filter((one) => one.in_hand))
const names = computed(() => held.value.map((one) => one.name).join(', '))
const words = computed(() => {
  const [first, ...more] = held.value
  if (!first) return 'Instruments …'
  return more.length ? `${first.name} + ${more.length}` : first.name
})
</script>

<template>
  <button
    type="button"
    class="side held"
    :class="{ warn: held.some((one) => !one.in_date) }"
    :title="names"
    :aria-label="`${words}, instruments in hand: ${names || 'not chosen today'}`"
    @click="bar.choosesInstruments = true"
  >
    {{ words }}
  </button>
</template>

<style scoped src="./entryBar.css"></style>
