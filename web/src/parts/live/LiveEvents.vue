<script setup lang="ts">
import { useIntervalFn } from '@vueuse/core'
import { ref, watch } from 'vue'
import { getTraceReading, markEvent } from '@/api/calls'
import type { Schemas } from '@/api/client'
import { useAsyncAction } from '@/api/useAsyncAction'

const props = defineProps<{
  capture: string
  now: number
  writable: boolean
  over: boolean
}>()
const emit = defineEmits<{
  step: [at_s: number]
  window: [start: number, end: number]
  events: [events: Schemas['TraceEventOut'][]]
}>()
const ASK_EVERY_MS = 5000
const reading = ref<Schemas['TraceReadingOut'] | null>(null)
const { trouble, busy, run } = useAsyncAction()
const ask = () =>
  run(async () => {
    reading.value = await getTraceReading(props.capture)
  })
useIntervalFn(() => {
  if (!document.hidden && !props.over) void ask()
}, ASK_EVERY_MS)
watch(() => props.capture, ask, { immediate: true })
watch(reading, (said) => emit('events', said?.events ?? []))
/** A mark means the moment of the touch, not of the answer. */
const mark = (kind: string) =>
  run(async () => {
    reading.value = await markEvent(props.capture, {
      id: crypto.randomUUID(),
      kind,
      at_s: props.now,
    })
  })
const clockOf = (s: number) =>
  `${Math.floor(s / 60)}:${String(Math.round(s % 60)).padStart(2, '0')}`
/** What moved, and the step that the event is for, told or not: a row each, and one where nothing moved. */
function rowsOf(event: Schemas['TraceEventOut']): (Schemas['StepOut'] | null)[] {
  const worth = event.steps.filter((step) => step.asked || step.clear)
  return worth.length ? worth : [null]
}
</script>

<template>
  <div class="events">
    <p v-if="trouble" class="trouble" role="alert">{{ trouble }}</p>
    <p class="still">
      <template v-if="reading?.together">
        <b>
          All still from {{ clockOf(reading.together.start_s) }} to
          {{ clockOf(reading.together.end_s) }}
        </b>
        <button
          class="btn strong"
          :disabled="busy || !writable"
          @click="emit('window', reading.together.start_s, reading.together.end_s)"
        >
          Write these means
        </button>
      </template>
      <slot />
    </p>
    <p v-if="reading && !reading.together" class="muted">
      Not all still yet: 20 s without drift count.
      <template v-if="reading.each.length">
        Still by themselves: {{ reading.each.map((one) => one.names[0]).join(', ') }}.
      </template>
    </p>
    <div v-if="!over" class="marks">
      <span class="muted">It happens now:</span>
      <button
        v-for="(name, kind) in reading?.kinds"
        :key="kind"
        class="btn"
        :disabled="!writable"
        @click="mark(String(kind))"
      >
        {{ name }}
      </button>
    </div>
    <table v-if="reading?.events.length">
      <caption class="muted">
        Events; the time that a cell takes to settle is taken off each step.
      </caption>
      <thead>
        <tr>
          <th>At, min:s</th>
          <th>Event</th>
          <th>What moved</th>
          <th>Step</th>
        </tr>
      </thead>
      <tbody
        v-for="event in reading.events"
        :key="`${event.kind}${event.at_s}`"
        :data-event="event.kind"
      >
        <tr v-for="(step, row) in rowsOf(event)" :key="row">
          <td>{{ row ? '' : clockOf(event.at_s) }}</td>
          <td>
            <template v-if="!row">
              <b>{{ event.name }}</b>
              <small class="muted">{{ event.marked ? 'marked' : 'seen in the trace' }}</small>
            </template>
          </td>
          <td>
            <template v-if="step">
              {{ step.name }}
              <template v-if="step.told">
                {{ step.told.before.text }} → {{ step.told.after.text }} {{ step.told.after.unit }}
              </template>
            </template>
            <span v-else class="muted">nothing that stands out</span>
          </td>
          <td class="step">
            <template v-if="step?.asked && step.told">
              <b>{{ step.told.step.text }} {{ step.told.step.unit }}</b>
              ± {{ step.told.half_width.text }}, {{ step.told.sure }}
            </template>
            <span v-if="step?.cannot_tell" class="untold">{{ step.cannot_tell }}</span>
            <button
              v-if="step?.writes"
              class="btn"
              :disabled="busy || !writable"
              @click="emit('step', event.at_s)"
            >
              Write this step
            </button>
          </td>
        </tr>
      </tbody>
    </table>
  </div>
</template>

<style scoped src="./liveTables.css"></style>
