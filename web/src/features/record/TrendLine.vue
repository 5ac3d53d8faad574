<script setup lang="ts">
import { computed } from 'vue'
import type { Schemas } from '@/api/client'

/** A reading over the years as a small curve, with its limits; a gap is where work made a fresh start. */
const props = defineProps<{ row: Schemas['RecordRow'] }>()
const WIDTH = 150
const HEIGHT = 34
const EDGE = 5
const dayOf = (point: Schemas['TrendPoint']) => new Date(point.day).getTime()
const limits = computed(() =>
  [props.row.low, props.row.high].filter((limit): limit is number => limit !== null),
)
const scale = computed(() => {
  const { points } = props.row
  const values = [...points.map((point) => point.value), ...limits.value]
  const [least, most] = [Math.min(...values), Math.max(...values)]
  const [first, last] = [dayOf(points[0]!), dayOf(points.at(-1)!)]
  const along = (share: number, length: number) => EDGE + share * (length - 2 * EDGE)
  return {
    x: (point: Schemas['TrendPoint']) =>
      along(last > first ? (dayOf(point) - first) / (last - first) : 1, WIDTH),
    y: (value: number) => along(most > least ? (most - value) / (most - least) : 0.5, HEIGHT),
  }
})
const drawn = computed(() =>
  props.row.points.map((point) => ({
    x: scale.value.x(point),
    y: scale.value.y(point.value),
    state: point.state,
    joined: point.joined,
  })),
)
const path = computed(() =>
  drawn.value.map(({ x, y, joined }) => `${joined ? 'L' : 'M'}${x} ${y}`).join(''),
)
</script>

<template>
  <svg
    :width="WIDTH"
    :height="HEIGHT"
    role="img"
    :aria-label="`${row.name} over the years: ${row.trend || 'no trend'}`"
  >
    <line
      v-for="limit in limits"
      :key="limit"
      :x2="WIDTH"
      :y1="scale.y(limit)"
      :y2="scale.y(limit)"
      class="limit"
    />
    <path :d="path" />
    <circle
      v-for="(point, i) in drawn"
      :key="i"
      :cx="point.x"
      :cy="point.y"
      r="3"
      :class="point.state"
    />
  </svg>
</template>

<style scoped>
svg {
  display: block;
}
path {
  fill: none;
  stroke: var(--in);
  stroke-width: 1.6;
}
circle {
  fill: var(--in);
}
.out {
  fill: var(--out);
}
.near {
  fill: var(--near);
}
.limit {
  stroke: var(--out);
  stroke-width: 1;
  stroke-dasharray: 4 3;
  opacity: 0.6;
}
</style>
