<script setup lang="ts">
import { useEventListener } from '@vueuse/core'
import { nextTick, onMounted, ref, watch } from 'vue'
import type { Schemas } from '@/api/client'
import { curve, moved, type Leads } from '@/parts/drawing/leads'

const props = defineProps<{
  leads: Leads
  reading: Schemas['MeterOut'] | null | undefined
  redraw: unknown
}>()
const emit = defineEmits<{ leads: [leads: Leads]; write: [starter: string] }>()
const meter = ref<HTMLElement | null>(null)
const paths = ref({ red: '', black: '' })
const hand = ref<{ which: 'red' | 'black'; x: number; y: number } | null>(null)

/** Draws both leads from where the meter and the nodes are on the screen now. */
function draw(): void {
  const box = meter.value?.getBoundingClientRect()
  if (!box || !meter.value) return
  const frame = meter.value.parentElement!.getBoundingClientRect()
  const end = (which: 'red' | 'black', i: number) => {
    const node = props.leads[i]
      ? document.querySelector(`[data-node="${props.leads[i]}"]`)?.getBoundingClientRect()
      : null
    const to =
      hand.value?.which === which
        ? { x: hand.value.x - frame.x, y: hand.value.y - frame.y }
        : node
          ? { x: node.x + node.width / 2 - frame.x, y: node.bottom - frame.y }
          : null
    const from = { x: box.x - frame.x + box.width * (i ? 0.7 : 0.3), y: box.y - frame.y + 4 }
    return to ? curve(from, to) : ''
  }
  paths.value = { red: end('red', 0), black: end('black', 1) }
}
function take(which: 'red' | 'black', event: PointerEvent): void {
  ;(event.target as HTMLElement).setPointerCapture(event.pointerId)
  hand.value = { which, x: event.clientX, y: event.clientY }
}
function move(event: PointerEvent): void {
  if (hand.value) hand.value = { ...hand.value, x: event.clientX, y: event.clientY }
  draw()
}
function drop(event: PointerEvent): void {
  const which = hand.value?.which
  hand.value = null
  const node = document
    .elementsFromPoint(event.clientX, event.clientY)
    .map((e) => (e as HTMLElement).dataset?.['node'])
    .find(Boolean)
  if (which && node) emit('leads', moved(props.leads, which, node))
  draw()
}
watch(
  () => [props.leads, props.redraw, props.reading],
  () => void nextTick(draw),
  { deep: true },
)
useEventListener(window, 'resize', draw)
onMounted(() => void nextTick(draw))
</script>

<template>
  <div class="bench">
    <svg class="over" aria-hidden="true">
      <path :d="paths.red" stroke="var(--out)" />
      <path :d="paths.black" stroke="var(--ink)" />
    </svg>
    <div ref="meter" class="meter">
      <button
        v-for="(which, i) in ['red', 'black'] as const"
        :key="which"
        class="plug"
        :class="which"
        :aria-label="`${which} lead: drag it to a node`"
        @pointerdown="take(which, $event)"
        @pointermove="move"
        @pointerup="drop"
      >
        {{ leads[i] || '·' }}
      </button>
      <p class="shown">
        <template v-if="reading">
          {{ reading.shown.text }}
          <small>{{ reading.shown.unit }}</small>
        </template>
        <template v-else>– –</template>
      </p>
      <p class="muted">
        {{
          leads[0] && leads[1]
            ? `${leads[0]} ↔ ${leads[1]} · a sound circuit shows this`
            : 'Touch two nodes, or drag a lead to one.'
        }}
      </p>
    </div>
    <div class="say">
      <button
        v-if="leads[0] && leads[1]"
        class="btn strong"
        @click="emit('write', `v ${leads[0]} ${leads[1]} `)"
      >
        Write what yours shows
      </button>
      <p v-if="reading?.note">
        <b>Mind:</b>
        {{ reading.note }}.
      </p>
      <p v-else class="muted">
        Across a closed switch: 0 V. Full supply across it: open. Live leads touch one terminal
        each.
      </p>
    </div>
  </div>
</template>

<style scoped>
.bench {
  position: relative;
  display: grid;
  grid-template-columns: 1fr auto 1fr;
  gap: 22px;
  align-items: center;
  margin-top: 20px;
}
.over {
  position: absolute;
  inset: 0;
  width: 100%;
  height: 100%;
  overflow: visible;
  pointer-events: none;
  z-index: 2;
}
.over path {
  fill: none;
  stroke-width: 4;
  stroke-linecap: round;
}
.meter {
  position: relative;
  grid-column: 2;
  min-width: 250px;
  padding: 12px 14px 8px;
  border: 2.5px solid var(--ink);
  border-radius: 10px;
  background: var(--track);
  text-align: center;
}
.shown {
  font-size: 31px;
  font-weight: 600;
  line-height: 1.2;
}
.shown small {
  font-size: 20px;
}
.plug {
  position: absolute;
  top: -22px;
  z-index: 3;
  width: 44px;
  height: 44px;
  border-radius: 8px;
  border: 2.5px solid var(--plate);
  color: var(--lead-ink);
  font-weight: 600;
  touch-action: none;
}
.plug.red {
  left: calc(30% - 22px);
  background: var(--lead-red);
}
.plug.black {
  left: calc(70% - 22px);
  background: var(--lead-black);
}
.say {
  display: grid;
  gap: 8px;
  justify-items: start;
  font-size: 15px;
}
@media (max-width: 800px) {
  .bench {
    grid-template-columns: 1fr;
    padding: 0 10px;
  }
  .meter {
    grid-column: 1;
  }
  .over {
    display: none;
  }
}
</style>
