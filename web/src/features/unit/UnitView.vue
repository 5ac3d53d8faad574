<script setup lang="ts">
import { computed, ref } from 'vue'
import type { Schemas } from '@/api/client'
import { useDesk } from '@/parts/desk/desk'
import StationPlate from '@/parts/drawing/StationPlate.vue'
import { useTies } from './useTies'

const props = defineProps<{ page: Schemas['VisitPage'] }>()
const desk = useDesk()
const board = ref<HTMLElement | null>(null)
const drawn = useTies(board, () => props.page)
const most = computed(() => Math.max(...props.page.paths.map((path) => path.stations.length)))

const show = (path: string) =>
  board.value
    ?.querySelector(`[data-path="${path}"]`)
    ?.scrollIntoView({ inline: 'start', block: 'nearest' })
</script>

<template>
  <nav class="jump" aria-label="Paths">
    <button
      v-for="path in page.paths"
      :key="path.key"
      :style="{ color: `var(--${path.key}-ink)` }"
      @click="show(path.key)"
    >
      {{ path.name }}
    </button>
  </nav>
  <div ref="board" class="board" :style="{ '--most': most, '--columns': page.paths.length }">
    <svg class="lines" :width="drawn.width" :height="drawn.height" aria-hidden="true">
      <path
        v-for="spine in drawn.spines"
        :key="spine.path"
        :d="spine.d"
        :style="{ stroke: `var(--${spine.path})` }"
        class="spine"
      />
      <path :d="drawn.join" class="spine" style="stroke: var(--gas)" />
      <path v-for="tie in drawn.ties" :key="tie" :d="tie" class="tie" />
    </svg>
    <section
      v-for="path in page.paths"
      :key="path.key"
      class="path"
      :data-path="path.key"
      :aria-label="path.name"
    >
      <h2 :style="{ color: `var(--${path.key}-ink)` }">
        {{ path.name }} {{ path.direction === 'up' ? '↑' : '↓' }}
        <small>{{ path.hint }}</small>
      </h2>
      <StationPlate
        v-for="station in path.stations"
        :key="station.key"
        :station="station"
        :path="path.key"
        :chosen="station.key === desk.chosen.value"
        @pick="desk.open(station.key)"
      />
    </section>
  </div>
</template>

<style scoped>
.board {
  position: relative;
  display: grid;
  grid-template-rows: minmax(0, 1fr);
  grid-template-columns: repeat(var(--columns), minmax(0, 1fr));
  gap: 0 38px;
  flex: 1 1 0;
  min-height: 500px;
  padding: 8px 16px 26px;
}
.path {
  position: relative;
  display: grid;
  grid-template-rows: 28px repeat(var(--most), minmax(80px, 1fr));
  gap: clamp(10px, calc((7 - var(--most)) * 8px), 16px);
  min-width: 0;
  height: 100%;
  max-height: calc(28px + var(--most) * 124px);
}
h2 {
  display: flex;
  align-items: baseline;
  gap: 10px;
  font-size: 18px;
  font-weight: 600;
  white-space: nowrap;
}
small {
  font-size: 14.5px;
  font-weight: 400;
  color: var(--muted);
  overflow: hidden;
  text-overflow: ellipsis;
}
.lines {
  position: absolute;
  inset: 0;
  pointer-events: none;
}
.spine {
  fill: none;
  stroke-width: 5;
  opacity: 0.55;
}
.tie {
  fill: none;
  stroke: var(--string);
  stroke-width: 1.4;
  stroke-dasharray: 4 3;
  opacity: 0.8;
}
.jump {
  display: none;
}
@media (max-width: 800px) {
  .jump {
    display: flex;
    flex: none;
    padding: 0 8px;
  }
  .jump button {
    flex: 1;
    min-height: 44px;
    border: 0;
    background: none;
    font-weight: 600;
    font-size: 17px;
  }
  .board {
    display: flex;
    gap: 0;
    padding: 0;
    overflow-x: auto;
    scroll-snap-type: x mandatory;
    scrollbar-width: none;
    height: 100%;
    min-height: 0;
  }
  .path {
    flex: 0 0 100%;
    scroll-snap-align: start;
    padding: 8px 14px 20px;
    overflow-y: auto;
    display: flex;
    flex-direction: column;
    gap: 10px;
  }
  .path > :deep(.plate) {
    flex: none;
    min-height: 88px;
  }
  .lines {
    display: none;
  }
  h2 {
    min-height: 30px;
  }
}
</style>
