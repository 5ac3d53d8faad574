<script setup lang="ts">
import { computed } from 'vue'
import type { Schemas } from '@/api/client'
import { fixed } from '@/ui/formats'

/** The dips of one channel, which channel moved first in each, and the touch that writes the worst. */
const props = defineProps<{ dips: Schemas['DipsOut']; writable: boolean; busy: boolean }>()
defineEmits<{ write: [] }>()
const MOST = 6

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
    <table v-if="dips.dips.length">
      <thead>
        <tr>
          <th>At, s</th>
          <th>Long, s</th>
          <th>Down to, {{ dips.set_point.unit }}</th>
          <th>What moved, first to last</th>
        </tr>
      </thead>
      <tbody>
        <tr v-for="dip in dips.dips.slice(-MOST)" :key="dip.at_s">
          <td>{{ fixed(dip.at_s, 0) }}</td>
          <td>{{ fixed(dip.long_s, 2) }} ± {{ fixed(dip.half_width_s, 2) }}</td>
          <td>
            {{ dip.least.text }}
            <b v-if="dip.reversed" class="turned">turned round</b>
          </td>
          <td>
            <b>{{ dip.order.join(' → ') || '–' }}</b>
            <small v-if="dip.still.length" class="muted">still: {{ dip.still.join(', ') }}</small>
          </td>
        </tr>
      </tbody>
    </table>
  </div>
</template>

<style scoped src="./liveTables.css"></style>
