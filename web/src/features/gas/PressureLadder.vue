<script setup lang="ts">
import type { Schemas } from '@/api/client'
import StateMark from '@/ui/StateMark.vue'

defineProps<{ rungs: Schemas['LadderRung'][]; writable: boolean }>()
const emit = defineEmits<{ begin: [starter: string, station: string] }>()
const from = (share: number) => `${100 * share}%`
const height = (low: number | null, high: number | null) => from((high ?? 1) - (low ?? 0))
</script>

<template>
  <div class="ladder" :style="{ gridTemplateColumns: `repeat(${rungs.length}, minmax(0, 1fr))` }">
    <button
      v-for="rung in rungs"
      :key="rung.name"
      :disabled="!writable"
      :data-rung="rung.station"
      @click="emit('begin', rung.starter, rung.station)"
    >
      <span class="rail" aria-hidden="true">
        <i
          v-if="rung.low !== null || rung.high !== null"
          class="band"
          :style="{ bottom: from(rung.low ?? 0), height: height(rung.low, rung.high) }"
        />
        <i v-if="rung.found !== null" class="found" :style="{ bottom: from(rung.found) }" />
        <i
          v-if="rung.value !== null"
          class="value"
          :class="rung.state"
          :style="{ bottom: from(rung.value) }"
        />
      </span>
      <span class="name">
        <StateMark :state="rung.state" :size="14" />
        {{ rung.name }}
      </span>
      <b>{{ rung.shown ? rung.shown.text : '–' }}</b>
      <span class="muted">{{ rung.shown ? rung.shown.unit : 'not read' }}</span>
      <small class="muted">{{ rung.limit }}</small>
    </button>
  </div>
</template>

<style scoped>
.ladder {
  display: grid;
  gap: 10px;
}
button {
  display: grid;
  grid-template-columns: auto 1fr;
  gap: 0 6px;
  align-items: baseline;
  text-align: left;
  padding: 10px;
  background: var(--plate);
  border: 1.5px solid var(--line);
  border-radius: 7px;
  min-width: 0;
}
button:hover {
  border-color: var(--muted);
}
.rail {
  grid-column: 1 / -1;
  position: relative;
  height: 150px;
  border-bottom: 2px solid var(--ink);
  margin-bottom: 8px;
}
.rail::before {
  content: '';
  position: absolute;
  inset: 0 auto 0 50%;
  width: 8px;
  margin-left: -4px;
  background: var(--track);
  border-radius: 4px 4px 0 0;
}
.rail i {
  position: absolute;
}
.band {
  left: 50%;
  width: 46px;
  margin-left: -23px;
  background: var(--band);
  border-radius: 3px;
}
.value {
  left: 50%;
  width: 72px;
  margin: 0 0 -2px -36px;
  height: 4px;
  background: var(--in);
  border-radius: 2px;
  transition: bottom 0.2s;
}
.value.near {
  background: var(--near);
}
.value.out {
  background: var(--out);
}
.found {
  left: 50%;
  width: 12px;
  height: 12px;
  margin: 0 0 -6px -6px;
  border: 2px solid var(--muted);
  border-radius: 50%;
  background: var(--plate);
}
.name {
  grid-column: 1 / -1;
  display: flex;
  gap: 6px;
  align-items: center;
  font-weight: 500;
  line-height: 1.15;
}
b {
  font-size: 25px;
  font-weight: 600;
}
small {
  grid-column: 1 / -1;
  font-size: 14px;
  line-height: 1.15;
}
@media (max-width: 800px) {
  .ladder {
    gap: 6px;
  }
  button {
    padding: 8px 6px;
  }
  .rail {
    height: 110px;
  }
  b {
    font-size: 20px;
  }
  .value {
    width: 50px;
    margin-left: -25px;
  }
}
@media (prefers-reduced-motion: reduce) {
  .value {
    transition: none;
  }
}
</style>
