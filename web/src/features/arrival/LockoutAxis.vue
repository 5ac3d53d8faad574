<script setup lang="ts">
import { computed } from 'vue'
import type { Schemas } from '@/api/client'

const props = defineProps<{ axis: Schemas['AxisOut'] }>()
/** Marks to the right of the middle have their words at the left: the order keeps a line out of another mark's words. */
const flip = computed(() => props.axis.marks.some((m) => m.at > 0.6))
const marks = computed(() =>
  [...props.axis.marks].sort((a, b) => (flip.value ? a.at - b.at : b.at - a.at)),
)
const percent = (share: number) => `${100 * share}%`
</script>

<template>
  <div class="axis">
    <div v-if="axis.spans.length" class="bar">
      <span
        v-for="s in axis.spans"
        :key="s.start"
        :class="s.runs"
        :style="{ left: percent(s.start), width: percent(s.end - s.start) }"
      >
        {{ s.end - s.start > 0.13 ? s.name : '' }}
      </span>
    </div>
    <div class="marks">
      <span
        v-for="(m, i) in marks"
        :key="m.name"
        :style="{ left: percent(m.at), top: `${i * 20}px` }"
        :class="{ flip }"
      >
        <i :style="{ height: `${12 + i * 20}px`, top: `${-12 - i * 20}px` }" />
        {{ m.name }}
        <b>{{ m.text }}</b>
      </span>
    </div>
    <p class="ends muted">
      <span>{{ axis.ends[0] }}</span>
      <span>outdoors</span>
      <span>{{ axis.ends[1] }}</span>
    </p>
    <p v-for="note in axis.notes" :key="note" :class="{ note: note.includes('neither') }">
      {{ note }}
    </p>
  </div>
</template>

<style scoped>
.axis {
  display: grid;
  gap: 6px;
}
.bar {
  position: relative;
  height: 38px;
  border: 1.5px solid var(--ink);
  border-radius: 4px;
  overflow: hidden;
}
.bar span {
  position: absolute;
  inset-block: 0;
  display: grid;
  place-content: center;
  font-weight: 600;
  font-size: 14.5px;
  white-space: nowrap;
  border-right: 1.5px solid var(--ink);
}
.bar span:last-child {
  border: 0;
}
.gas {
  background: color-mix(in srgb, var(--gas) 34%, var(--plate));
}
.pump {
  background: color-mix(in srgb, var(--air) 34%, var(--plate));
}
.both {
  background: linear-gradient(
    90deg,
    color-mix(in srgb, var(--gas) 34%, var(--plate)),
    color-mix(in srgb, var(--air) 34%, var(--plate))
  );
}
.none {
  background: repeating-linear-gradient(
    45deg,
    var(--danger-ground) 0 8px,
    color-mix(in srgb, var(--out) 30%, var(--plate)) 8px 16px
  );
}
.marks {
  position: relative;
  height: 64px;
  margin-top: 6px;
}
.marks span {
  position: absolute;
  white-space: nowrap;
  padding-left: 5px;
  font-size: 14.5px;
  line-height: 1.2;
}
.marks .flip {
  translate: -100% 0;
  padding: 0 5px 0 0;
}
.marks i {
  position: absolute;
  left: 0;
  width: 2px;
  background: var(--ink);
}
.marks .flip i {
  left: auto;
  right: 0;
}
.ends {
  display: flex;
  justify-content: space-between;
  font-size: 14.5px;
}
.note {
  padding: 7px 12px;
  border-left: 5px solid var(--out);
  background: var(--danger-ground);
  font-weight: 500;
}
</style>
