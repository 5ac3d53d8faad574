<script setup lang="ts">
import { NInput } from 'naive-ui'
import { ref } from 'vue'
import type { Schemas } from '@/api/client'

const props = defineProps<{ photo: Schemas['PhotoOut']; writable: boolean }>()
defineEmits<{ keep: [marks: Schemas['MarkIn'][]] }>()
const marks = ref<Schemas['MarkIn'][]>(props.photo.marks.map((mark) => ({ ...mark })))
const board = ref<SVGSVGElement | null>(null)
/** Height by width of the picture; 0 until it is there, and nothing can be drawn on it before. */
const ratio = ref(0)
const SHORTEST = 0.02
let drawing = false

function at(event: PointerEvent): { x: number; y: number } {
  const rect = board.value?.getBoundingClientRect()
  const inside = (share: number) => Math.min(Math.max(+share.toFixed(4), 0), 1)
  return rect
    ? {
        x: inside((event.clientX - rect.left) / rect.width),
        y: inside((event.clientY - rect.top) / rect.height),
      }
    : { x: 0, y: 0 }
}
function down(event: PointerEvent): void {
  if (!props.writable) return
  board.value?.setPointerCapture(event.pointerId)
  const { x, y } = at(event)
  marks.value = [...marks.value, { x, y, to_x: x, to_y: y, text: '' }]
  drawing = true
}
function move(event: PointerEvent): void {
  const last = marks.value.at(-1)
  if (!drawing || !last) return
  const { x, y } = at(event)
  marks.value = [...marks.value.slice(0, -1), { ...last, to_x: x, to_y: y }]
}
function up(): void {
  drawing = false
  marks.value = marks.value.filter(
    (mark) => Math.hypot(mark.to_x - mark.x, mark.to_y - mark.y) > SHORTEST,
  )
}
const loaded = (event: Event) => {
  const image = event.target as HTMLImageElement
  ratio.value = image.naturalHeight / image.naturalWidth
}
</script>

<template>
  <div class="marks">
    <div class="photo">
      <img :src="photo.url" :alt="photo.caption || 'photo'" @load="loaded" />
      <svg
        v-if="ratio"
        ref="board"
        :viewBox="`0 0 1000 ${1000 * ratio}`"
        preserveAspectRatio="none"
        @pointerdown="down"
        @pointermove="move"
        @pointerup="up"
        @pointercancel="up"
      >
        <g v-for="(m, i) in marks" :key="i">
          <line
            :x1="1000 * m.x"
            :y1="1000 * ratio * m.y"
            :x2="1000 * m.to_x"
            :y2="1000 * ratio * m.to_y"
          />
          <circle :cx="1000 * m.to_x" :cy="1000 * ratio * m.to_y" r="18" />
          <text :x="1000 * m.x" :y="1000 * ratio * m.y - 8">{{ m.text }}</text>
        </g>
      </svg>
    </div>
    <template v-if="writable">
      <p class="muted">Draw from where its words should be to what they describe.</p>
      <div v-for="(mark, i) in marks" :key="i" class="row">
        <b>{{ i + 1 }}</b>
        <NInput
          v-model:value="mark.text"
          placeholder="What is there?"
          :maxlength="80"
          :input-props="{ 'aria-label': `Words of mark ${i + 1}` }"
        />
        <button class="btn" @click="marks.splice(i, 1)">Remove</button>
      </div>
      <button class="btn strong" @click="$emit('keep', marks)">Keep the marks</button>
    </template>
  </div>
</template>

<style scoped>
.marks {
  display: grid;
  gap: 9px;
}
.photo {
  position: relative;
  width: fit-content;
  margin: 0 auto;
}
img {
  display: block;
  max-width: 100%;
  max-height: 62vh;
  border-radius: 6px;
}
svg {
  position: absolute;
  inset: 0;
  width: 100%;
  height: 100%;
  touch-action: none;
  cursor: crosshair;
}
line,
circle {
  stroke: var(--mark);
  stroke-width: 8;
  fill: none;
}
text {
  font: 700 40px var(--font);
  fill: var(--mark);
  stroke: var(--mark-edge);
  stroke-width: 9;
  paint-order: stroke;
}
.row {
  display: grid;
  grid-template-columns: 24px 1fr auto;
  gap: 8px;
  align-items: center;
}
</style>
