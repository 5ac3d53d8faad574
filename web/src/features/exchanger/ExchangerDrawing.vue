<script setup lang="ts">
import type { Schemas } from '@/api/client'
import type { Spot } from './line'

const props = defineProps<{
  exchanger: Schemas['ExchangerOut']
  chosen: Spot | null
  writable: boolean
}>()
const emit = defineEmits<{ spot: [spot: Spot] }>()
const EDGE = 8,
  NAME = 22
const path = (outline: number[][], closed: boolean) =>
  `M${outline.map(([x, y]) => `${x} ${y}`).join('L')}${closed ? 'Z' : ''}`
const centre = (outline: number[][]) =>
  outline.reduce((sum, point) => sum + (point[0] ?? 0), 0) / outline.length
const STROKES: Record<string, string> = {
  in: 'var(--in)',
  near: 'var(--near)',
  out: 'var(--out)',
  none: 'var(--muted)',
}
const isChosen = (part: string, zone: string) =>
  props.chosen?.part === part && props.chosen.zone === zone
const touch = (part: string, zone: string) => {
  if (props.writable) emit('spot', { part, zone })
}
</script>

<template>
  <svg
    :viewBox="`${-EDGE} ${-EDGE} ${exchanger.width + 2 * EDGE} ${exchanger.height + NAME + 2 * EDGE}`"
    :style="{ maxWidth: `${Math.min(exchanger.width * 1.7, 760)}px` }"
    role="group"
    :aria-label="`${exchanger.name} exchanger with ${exchanger.parts.length} parts`"
  >
    <g v-for="part in exchanger.parts" :key="part.key">
      <path
        :d="path(part.outline, part.closed)"
        :fill="part.closed ? 'var(--paper)' : 'none'"
        stroke="var(--line)"
        :stroke-width="part.closed ? 9 : 17"
        stroke-linejoin="round"
        stroke-linecap="round"
      />
      <path
        :d="path(part.outline, part.closed)"
        :fill="part.closed ? 'var(--paper)' : 'none'"
        :stroke="STROKES[part.state]"
        :stroke-width="part.closed ? 3.2 : 11"
        stroke-linejoin="round"
        stroke-linecap="round"
        :stroke-dasharray="part.state === 'none' && part.closed ? '5 4' : ''"
        :opacity="part.closed ? 1 : part.state === 'none' ? 0.25 : 0.6"
      />
      <text :x="centre(part.outline)" :y="exchanger.height + 14" text-anchor="middle">
        {{ part.key }}
      </text>
      <g
        v-for="zone in part.zones"
        :key="zone.key"
        :data-zone="`${part.key} ${zone.key}`"
        :role="writable ? 'button' : undefined"
        :tabindex="writable ? 0 : undefined"
        :aria-label="`${part.key}, ${zone.key}`"
        class="zone"
        :class="{ on: isChosen(part.key, zone.key) }"
        @click="touch(part.key, zone.key)"
        @keydown.enter.prevent="touch(part.key, zone.key)"
      >
        <title>{{ part.key }}, {{ zone.key }}</title>
        <circle :cx="zone.x" :cy="zone.y" r="14" fill="transparent" />
        <circle :cx="zone.x" :cy="zone.y" r="5" class="dot" />
      </g>
    </g>
    <g v-for="row in exchanger.placed" :key="row.entry_id" class="found">
      <template v-if="row.x !== null && row.y !== null">
        <rect
          v-if="row.level >= 3"
          class="mark-at"
          :x="row.x - 7"
          :y="row.y - 7"
          width="14"
          height="14"
          :transform="`rotate(45 ${row.x} ${row.y})`"
          fill="var(--out)"
          stroke="var(--plate)"
          stroke-width="2"
        />
        <path
          v-else
          class="mark-at"
          :d="`M${row.x} ${row.y - 9}l9 16h-18z`"
          fill="var(--near)"
          stroke="var(--plate)"
          stroke-width="2"
        />
      </template>
    </g>
  </svg>
</template>

<style scoped>
svg {
  width: 100%;
  display: block;
  margin: 0 auto;
}
text {
  font: 500 13px var(--font);
  fill: var(--ink);
}
.zone {
  cursor: pointer;
}
.dot {
  fill: var(--plate);
  stroke: var(--ink);
  stroke-width: 1.6;
}
.zone:hover .dot,
.on .dot {
  fill: var(--in);
  stroke: var(--in);
}
.on .dot {
  r: 8px;
}
.zone:focus-visible {
  outline: none;
}
.zone:focus-visible .dot {
  stroke: var(--in);
  stroke-width: 5;
}
.found {
  pointer-events: none;
}
</style>
