<script setup lang="ts">
import type { Lane } from './lanes'

/** One channel of a capture: its last minute, its ends, its newest value. */
defineProps<{ lane: Lane; width: number; height: number; ticks: number[]; busy: boolean }>()
defineEmits<{ dips: [] }>()
</script>

<template>
  <div class="lane" :data-channel="lane.quantity">
    <span class="name">{{ lane.name }}</span>
    <svg
      :viewBox="`0 -2 ${width} ${height + 4}`"
      preserveAspectRatio="none"
      role="img"
      :aria-label="`${lane.name}, the last minute`"
    >
      <path :d="lane.points" class="trace" />
      <line v-for="x in ticks" :key="x" :x1="x" :x2="x" y1="-2" :y2="height + 2" class="tick" />
    </svg>
    <span class="ends muted">
      <i>{{ lane.most }}</i>
      <i>{{ lane.least }}</i>
    </span>
    <b>
      {{ lane.now }}
      <small>{{ lane.unit }}</small>
    </b>
    <button class="ask" :disabled="busy" @click="$emit('dips')">dips</button>
  </div>
</template>

<style scoped>
.lane {
  display: grid;
  grid-template-columns: 132px minmax(0, 1fr) 44px 118px 44px;
  gap: 8px;
  align-items: center;
  padding-bottom: 4px;
  border-bottom: 1px solid var(--line);
}
svg {
  display: block;
  width: 100%;
  height: 48px;
}
.trace {
  fill: none;
  stroke: var(--in);
  stroke-width: 1.8;
  vector-effect: non-scaling-stroke;
}
.tick {
  stroke: var(--near);
  stroke-width: 1.5;
  vector-effect: non-scaling-stroke;
}
.name {
  line-height: 1.15;
  font-weight: 500;
}
.ends {
  display: grid;
  gap: 12px;
  font-size: 13px;
}
.ends i {
  font-style: normal;
}
b {
  font-size: 22px;
  text-align: right;
  white-space: nowrap;
}
small {
  font-size: 14px;
  font-weight: 400;
  color: var(--muted);
}
.ask {
  min-height: 44px;
  padding: 0;
  border: 0;
  background: none;
  color: var(--in);
  text-decoration: underline dotted;
}
@media (max-width: 800px) {
  .lane {
    grid-template-columns: minmax(0, 1fr) auto 44px;
  }
  svg {
    grid-column: 1 / -1;
    grid-row: 2;
  }
  .ends {
    display: none;
  }
}
</style>
