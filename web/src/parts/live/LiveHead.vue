<script setup lang="ts">
import { computed } from 'vue'
import type { Schemas } from '@/api/client'
import { clockAt } from '@/ui/moments'

/** Which instruments record, since when, and the touch that begins or ends it. */
const props = defineProps<{
  page: Schemas['VisitPage']
  capture: Schemas['CaptureOut'] | null
}>()
defineEmits<{ start: []; end: [] }>()
const chosen = defineModel<number[]>('chosen', { required: true })
const since = computed(() => {
  if (!props.capture) return 'instruments that send by themselves'
  const began = clockAt(props.capture.started_at, props.page.zone)
  if (!props.capture.ended_at) return `recording on this visit since ${began}`
  return `recorded from ${began} to ${clockAt(props.capture.ended_at, props.page.zone)}`
})
const toggle = (id: number) =>
  (chosen.value = chosen.value.includes(id)
    ? chosen.value.filter((n) => n !== id)
    : [...chosen.value, id])
</script>

<template>
  <div class="head">
    <h2>
      Live
      <span class="muted">{{ since }}</span>
    </h2>
    <template v-if="!capture">
      <button
        v-for="i in page.instruments"
        :key="i.id"
        class="chip"
        :class="{ picked: chosen.includes(i.id) }"
        :aria-pressed="chosen.includes(i.id)"
        @click="toggle(i.id)"
      >
        {{ i.name }}
      </button>
      <button
        class="btn strong"
        :disabled="!page.writable || !chosen.length"
        @click="$emit('start')"
      >
        Record
      </button>
    </template>
    <button
      v-else
      class="btn"
      :disabled="!page.writable && !capture.ended_at"
      @click="$emit('end')"
    >
      {{ capture.ended_at ? 'Back' : 'Stop' }}
    </button>
  </div>
</template>

<style scoped>
.head {
  display: flex;
  gap: 8px;
  align-items: center;
  flex-wrap: wrap;
}
h2 {
  margin-right: auto;
  font-size: 18px;
}
h2 span {
  margin-left: 6px;
  font-size: 15px;
  font-weight: 400;
}
.chip {
  min-height: 44px;
  padding: 0 11px;
  border: 1.5px solid var(--line);
  border-radius: 6px;
  background: none;
  color: var(--muted);
}
.picked {
  border-color: var(--in);
  color: var(--ink);
  font-weight: 500;
}
</style>
