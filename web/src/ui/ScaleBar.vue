<script setup lang="ts">
import type { Schemas } from '@/api/client'

defineProps<{ scale: Schemas['ScaleOut']; state: string }>()
const pct = (share: number): string => `${100 * share}%`
</script>

<template>
  <div class="scale" aria-hidden="true">
    <i
      class="band"
      :style="{ left: pct(scale.band_from), width: pct(scale.band_to - scale.band_from) }"
    />
    <i
      v-if="scale.found !== null && scale.found !== undefined"
      class="found"
      :style="{ left: pct(scale.found) }"
    />
    <i class="value" :class="state" :style="{ left: pct(scale.value) }" />
  </div>
</template>

<style scoped>
.scale {
  position: relative;
  height: 5px;
  margin-top: 8px;
  flex: none;
  border-radius: 3px;
  background: var(--track);
}
.scale i {
  position: absolute;
}
.band {
  inset-block: 0;
  background: var(--band);
  border-radius: 2px;
}
.value {
  top: -5px;
  width: 2.5px;
  height: 13px;
  margin-left: -1.2px;
  background: var(--in);
}
.value::before {
  content: '';
  position: absolute;
  left: -4.3px;
  top: -3px;
  border: 5.5px solid transparent;
  border-top: 7px solid var(--in);
  border-bottom: 0;
}
.value.near {
  background: var(--near);
}
.value.near::before {
  border-top-color: var(--near);
}
.value.out {
  background: var(--out);
}
.value.out::before {
  border-top-color: var(--out);
}
.found {
  top: -2.5px;
  width: 10px;
  height: 10px;
  margin-left: -5px;
  border: 2px solid var(--muted);
  border-radius: 50%;
  background: var(--plate);
  transition: left 0.2s;
}
.value {
  transition: left 0.2s;
}
@media (prefers-reduced-motion: reduce) {
  .value,
  .found {
    transition: none;
  }
}
</style>
