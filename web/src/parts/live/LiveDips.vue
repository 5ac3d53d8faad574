<script setup lang="ts">
import { computed } from 'vue'
import type { Schemas } from '@/api/client'
import { fixed } from '@/ui/formats'

/** The dips of one channel, which channel moved first in each, and the touch that writes the worst. */
const props = defineProps<{ dips: Schemas['DipsOut']; writable: boolean; busy: boolean }>()
defineEmits<{ write: [] }>()
const MOST = 6

function saidOf(dip: Schemas['DipOut']): string {
  const { at_s, long_s, half_width_s: off, least } = dip
  const long = `${fixed(long_s, 2)} ± ${fixed(off, 2)} s long`
  return `at ${fixed(at_s, 0)} s, ${long}, down to ${least.text} ${least.unit}`
}
const worst = computed(() => {
  const { worst: lowest, set_point: point } = props.dips
  if (!lowest) return ''
  return `Lowest ${lowest.text} ${lowest.unit}, set point ${point.text} ${point.unit}.`
})
</script>

<template>
  <div class="dips">
    <p>
      <b>{{ dips.says[0] }}</b>
      <span class="muted">{{ worst }}</span>
    </p>
    <p v-for="said in dips.says.slice(1)" :key="said">{{ said }}</p>
    <p v-for="said in dips.contacts" :key="said" class="contact">{{ said }}</p>
    <p v-if="dips.clocks" class="muted">{{ dips.clocks }}</p>
    <p v-if="dips.writes">
      <button class="btn" :disabled="busy || !writable" @click="$emit('write')">
        Write the worst on the tape
      </button>
    </p>
    <ul>
      <li v-for="dip in dips.dips.slice(-MOST)" :key="dip.at_s">
        {{ saidOf(dip) }}
        <b v-if="dip.reversed" class="turned">· turned round</b>
        <b v-if="dip.order.length">· {{ dip.order.join(' → ') }}</b>
        <span v-if="dip.still.length" class="muted">· still: {{ dip.still.join(', ') }}</span>
      </li>
    </ul>
  </div>
</template>

<style scoped>
.dips {
  display: grid;
  gap: 7px;
}
p .muted {
  margin-left: 6px;
}
.contact {
  border-left: 4px solid var(--string);
  padding-left: 10px;
}
.turned {
  color: var(--out);
}
ul {
  margin: 4px 0 0;
  padding-left: 18px;
}
</style>
