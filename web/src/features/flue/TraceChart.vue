<script setup lang="ts">
import { computed, ref } from 'vue'
import type { Schemas } from '@/api/client'
import { fixed } from '@/ui/formats'
import { lanes as toLanes } from './traceScale'

const props = defineProps<{ trace: Schemas['TraceOut']; window: [number, number] | null }>()
const emit = defineEmits<{ window: [range: [number, number]] }>()
const WIDTH = window.innerWidth <= 800 ? 330 : 800 // units of the drawing: text keeps its size on a phone
const LANE = 50,
  GAP = 13
const COLOURS: Record<string, string> = {
  o2_dry_pct: 'var(--in)',
  co_ppm_dry: 'var(--out)',
  flue_temp_k: 'var(--near)',
}
const lanes = computed(() =>
  toLanes(props.trace.seconds, props.trace.channels, props.trace.units, WIDTH, LANE - 10),
)
const height = computed(() => lanes.value.length * (LANE + GAP))
const x = (seconds: number): number => (seconds / props.trace.duration_s) * WIDTH
const svg = ref<SVGSVGElement | null>(null)
const from = ref<number | null>(null)

function at(event: PointerEvent): number {
  const rect = svg.value?.getBoundingClientRect()
  if (!rect) return 0
  const left = (66 / (WIDTH + 70)) * rect.width,
    width = (WIDTH / (WIDTH + 70)) * rect.width
  return (
    Math.min(Math.max((event.clientX - rect.left - left) / width, 0), 1) * props.trace.duration_s
  )
}
function down(event: PointerEvent): void {
  svg.value?.setPointerCapture(event.pointerId)
  from.value = at(event)
}
function up(event: PointerEvent): void {
  if (from.value === null) return
  const to = at(event)
  if (Math.abs(to - from.value) > 5)
    emit('window', [Math.min(from.value, to), Math.max(from.value, to)])
  from.value = null
}
const minutes = computed(() =>
  props.window ? fixed((props.window[1] - props.window[0]) / 60, 1) : '',
)
</script>

<template>
  <svg
    ref="svg"
    class="trace"
    :viewBox="`-66 0 ${WIDTH + 70} ${height + 34}`"
    role="img"
    aria-label="Flue trace; drag across it to choose another window"
    @pointerdown="down"
    @pointerup="up"
  >
    <rect
      v-if="window"
      :x="x(window[0])"
      y="0"
      :width="x(window[1]) - x(window[0])"
      :height="height"
      fill="var(--steady)"
    />
    <g
      v-for="(lane, i) in lanes"
      :key="lane.name"
      :transform="`translate(0 ${i * (LANE + GAP) + 5})`"
    >
      <line x1="0" :x2="WIDTH" :y1="LANE" :y2="LANE" stroke="var(--line)" />
      <path
        :d="lane.points"
        fill="none"
        :stroke="COLOURS[lane.name]"
        stroke-width="2"
        stroke-linejoin="round"
      />
      <text x="-66" y="14" :style="{ fill: COLOURS[lane.name] }" class="name">
        {{ lane.label }}
      </text>
      <text x="-66" y="31" class="unit">{{ lane.unit }}</text>
      <text x="-6" y="10" class="end">{{ fixed(lane.high, lane.high < 30 ? 1 : 0) }}</text>
      <text x="-6" :y="LANE - 8" class="end">{{ fixed(lane.low, lane.low < 30 ? 1 : 0) }}</text>
    </g>
    <g v-if="trace.light_off_s !== null && trace.light_off_s !== undefined">
      <line
        :x1="x(trace.light_off_s)"
        :x2="x(trace.light_off_s)"
        y1="0"
        :y2="height"
        stroke="var(--ink)"
        stroke-width="1.5"
        stroke-dasharray="2 3"
      />
      <text :x="x(trace.light_off_s)" :y="height + 14" text-anchor="middle">light-off</text>
    </g>
    <text
      v-if="window"
      :x="(x(window[0]) + x(window[1])) / 2"
      :y="height + 14"
      text-anchor="middle"
      class="steady"
    >
      {{ trace.steady?.low === window[0] ? 'steady' : 'chosen' }}, {{ minutes }} min
    </text>
    <text x="0" :y="height + 30" class="unit">0 min</text>
    <text :x="WIDTH" :y="height + 30" text-anchor="end" class="unit">
      {{ fixed(trace.duration_s / 60, 1) }}
    </text>
  </svg>
</template>

<style scoped>
.trace {
  width: 100%;
  display: block;
  touch-action: pan-y;
  cursor: crosshair;
  user-select: none;
}
text {
  font: 14px var(--font);
  fill: var(--ink);
}
.name {
  font-weight: 700;
  font-size: 16px;
}
.unit,
.end {
  fill: var(--muted);
  font-size: 13px;
}
.end {
  text-anchor: end;
}
.steady {
  fill: var(--in);
  font-weight: 600;
}
</style>
