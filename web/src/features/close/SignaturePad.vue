<script setup lang="ts">
import { ref } from 'vue'
import type { Schemas } from '@/api/client'

/** Strokes of points, each a share of the pad across and down. */
const strokes = defineModel<Schemas['CloseIn']['signature']>({ required: true })
const pad = ref<SVGSVGElement | null>(null)
let drawing = false

function point(event: PointerEvent): [number, number] {
  const rect = pad.value?.getBoundingClientRect()
  if (!rect) return [0, 0]
  return [
    +((event.clientX - rect.left) / rect.width).toFixed(3),
    +((event.clientY - rect.top) / rect.height).toFixed(3),
  ]
}
function down(event: PointerEvent): void {
  pad.value?.setPointerCapture(event.pointerId)
  drawing = true
  strokes.value = [...strokes.value, [point(event)]]
}
function move(event: PointerEvent): void {
  if (!drawing) return
  strokes.value = [...strokes.value.slice(0, -1), [...(strokes.value.at(-1) ?? []), point(event)]]
}
</script>

<template>
  <div class="pad">
    <svg
      ref="pad"
      viewBox="0 0 100 30"
      preserveAspectRatio="none"
      role="img"
      aria-label="Sign here with a finger or the mouse"
      @pointerdown="down"
      @pointermove="move"
      @pointerup="drawing = false"
      @pointercancel="drawing = false"
    >
      <line
        x1="4"
        x2="96"
        y1="24"
        y2="24"
        stroke="var(--line)"
        vector-effect="non-scaling-stroke"
      />
      <polyline
        v-for="(stroke, i) in strokes"
        :key="i"
        :points="stroke.map(([x, y]) => `${(x ?? 0) * 100},${(y ?? 0) * 30}`).join(' ')"
        fill="none"
        stroke="var(--ink)"
        stroke-width="2"
        vector-effect="non-scaling-stroke"
      />
    </svg>
    <button v-if="strokes.length" type="button" class="wipe" @click="strokes = []">Wipe</button>
  </div>
</template>

<style scoped>
.pad {
  position: relative;
}
svg {
  width: 100%;
  height: 120px;
  background: var(--plate);
  border: 1.5px solid var(--line);
  border-radius: 6px;
  touch-action: none;
  display: block;
}
.wipe {
  position: absolute;
  right: 6px;
  top: 6px;
  min-height: 44px;
  border: 1px solid var(--line);
  border-radius: 5px;
  background: var(--plate);
  padding: 0 12px;
}
</style>
