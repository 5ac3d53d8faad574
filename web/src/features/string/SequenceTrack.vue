<script setup lang="ts">
import type { Schemas } from '@/api/client'
import { fixed } from '@/ui/formats'

/** When a moment should begin, pale, and when it did, dark. */
const props = defineProps<{ event: Schemas['EventOut']; longest: number }>()
const LEAST_S = 0.5 // a window of no width would not be seen
const at = (seconds: number) => `${(100 * seconds) / props.longest}%`
</script>

<template>
  <div class="track">
    <i
      class="window"
      :style="{
        left: at(event.earliest_s),
        width: at(Math.max(event.latest_s - event.earliest_s, LEAST_S)),
      }"
    />
    <i
      v-if="event.seen_s !== null"
      class="seen"
      :class="event.state"
      :style="{ left: at(event.seen_s) }"
    >
      <span>{{ fixed(event.seen_s, 1) }} s</span>
    </i>
    <span v-if="!event.by_eye" class="meter muted">by meter</span>
  </div>
</template>

<style scoped>
.track {
  position: relative;
  height: 24px;
  background: var(--track);
  border-radius: 2px;
}
.window {
  position: absolute;
  inset: 0 auto 0 auto;
  background: var(--band);
  border-radius: 2px;
}
.seen {
  position: absolute;
  top: -2px;
  bottom: -2px;
  width: 5px;
  margin-left: -2px;
  background: var(--in);
  border-radius: 2px;
}
.seen.out {
  background: var(--out);
}
.seen span {
  position: absolute;
  left: 10px;
  top: 4px;
  font: 600 14px var(--font);
  white-space: nowrap;
  color: var(--ink);
}
.meter {
  position: absolute;
  right: 8px;
  top: 3px;
  font-size: 13.5px;
}
</style>
