<script setup lang="ts">
import { computed, ref } from 'vue'
import type { Schemas } from '@/api/client'
import { clockAt } from '@/ui/moments'

/** One line: which instruments record, since when, and the touch that begins or ends it. */
const props = defineProps<{
  page: Schemas['VisitPage']
  capture: Schemas['CaptureOut'] | null
}>()
defineEmits<{ start: []; end: [] }>()
const chosen = defineModel<number[]>('chosen', { required: true })
const choosing = ref(false)
const picked = computed(() =>
  props.page.instruments.filter((one) => chosen.value.includes(one.id)).map((one) => one.name),
)
const since = computed(() => {
  if (!props.capture) return picked.value.join(', ') || 'no instrument is chosen'
  const began = clockAt(props.capture.started_at, props.page.zone)
  const made = props.capture.simulated ? 'made-up samples, ' : ''
  if (!props.capture.ended_at) return `${made}recording on this visit since ${began}`
  return `${made}recorded from ${began} to ${clockAt(props.capture.ended_at, props.page.zone)}`
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
      <span class="muted" :title="since">{{ since }}</span>
    </h2>
    <slot />
    <template v-if="!capture">
      <button class="btn which" :aria-expanded="choosing" @click="choosing = !choosing">
        Which …
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
  <p v-if="choosing && !capture" class="chips">
    <button
      v-for="one in page.instruments"
      :key="one.id"
      class="chip"
      :class="{ picked: chosen.includes(one.id) }"
      :aria-pressed="chosen.includes(one.id)"
      @click="toggle(one.id)"
    >
      {{ one.name }}
    </button>
  </p>
</template>

<style scoped>
.head {
  display: flex;
  gap: 8px;
  align-items: center;
}
h2 {
  flex: 1 1 0;
  min-width: 0;
  overflow: hidden;
  font-size: 18px;
  text-overflow: ellipsis;
  white-space: nowrap;
}
h2 span {
  margin-left: 6px;
  font-size: 15px;
  font-weight: 400;
}
.chips {
  display: flex;
  flex-wrap: wrap;
  gap: 8px;
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
@media (max-width: 800px) {
  .head {
    flex-wrap: wrap;
  }
  h2 {
    flex-basis: 100%;
    white-space: normal;
  }
}
</style>
