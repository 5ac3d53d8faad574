<script setup lang="ts">
import type { Schemas } from '@/api/client'
import StateMark from '@/ui/StateMark.vue'

defineProps<{ row: Schemas['SwitchOut']; writable: boolean }>()
const emit = defineEmits<{ begin: [starter: string] }>()
const pct = (share: number) => `${100 * share}%`
</script>

<template>
  <button class="switch" :disabled="!writable" @click="emit('begin', row.starter)">
    <span class="name">
      <StateMark :state="row.state" />
      {{ row.label ? `Switch, ${row.label} fire` : 'Pressure switch' }}
      <b>{{ row.read ? `${row.read.text} ${row.read.unit}` : 'not read' }}</b>
      <span v-if="row.found" class="muted">was {{ row.found.text }}</span>
    </span>
    <span class="bar" aria-hidden="true">
      <i class="short" />
      <i class="margin" :style="{ left: '50%', width: pct(row.wanted_share - 0.5) }" />
      <i class="good" :style="{ left: pct(row.wanted_share) }" />
      <i
        v-if="row.read_share !== null"
        class="value"
        :class="row.state"
        :style="{ left: pct(row.read_share) }"
      />
    </span>
    <span class="marks">
      <i style="left: 0">0</i>
      <i style="left: 50%">makes at {{ row.point.text }} {{ row.point.unit }}</i>
    </span>
  </button>
</template>

<style scoped>
.switch {
  display: grid;
  gap: 8px;
  width: 100%;
  padding: 12px 16px;
  border: 1.5px solid var(--line);
  border-radius: 8px;
  background: var(--plate);
  text-align: left;
}
.switch:hover {
  border-color: var(--muted);
}
.name {
  display: flex;
  gap: 8px;
  align-items: baseline;
  font-weight: 500;
}
.name svg {
  align-self: center;
}
.name b {
  font-size: 24px;
  margin-left: auto;
}
.bar {
  position: relative;
  height: 22px;
  border-radius: 4px;
  overflow: hidden;
  background: var(--track);
}
.bar i {
  position: absolute;
  inset-block: 0;
}
.short {
  left: 0;
  width: 50%;
  background: repeating-linear-gradient(45deg, var(--danger-ground) 0 7px, transparent 7px 14px);
}
.margin {
  background: color-mix(in srgb, var(--near) 45%, var(--track));
}
.good {
  right: 0;
  background: var(--band);
}
.value {
  width: 5px;
  margin-left: -2.5px;
  background: var(--in);
  transition: left 0.2s;
}
.value.near {
  background: var(--near);
}
.value.out {
  background: var(--out);
}
.marks {
  position: relative;
  height: 18px;
  font-size: 14px;
  color: var(--muted);
}
.marks i {
  position: absolute;
  font-style: normal;
  white-space: nowrap;
}
.marks i + i {
  translate: -50% 0;
}
@media (prefers-reduced-motion: reduce) {
  .value {
    transition: none;
  }
}
</style>
