<script setup lang="ts">
import { computed, ref, watch } from 'vue'
import { getDips, uploadSamples } from '@/api/calls'
import type { Schemas } from '@/api/client'
import { useAsyncAction } from '@/api/useAsyncAction'
import { useOutbox } from '@/outbox/useOutbox'
import { useBar } from '@/parts/desk/bar'
import FileButton from '@/ui/FileButton.vue'
import { clockAt } from '@/ui/moments'
import { useNarrow } from '@/ui/useNarrow'
import type { Buffers } from './buffers'
import { lanesOf } from './lanes'
import LiveDips from './LiveDips.vue'
import LiveEvents from './LiveEvents.vue'
import LiveHead from './LiveHead.vue'
import LiveLane from './LiveLane.vue'
import { useLive } from './useLive'

/** Instruments that send by themselves: record, look, write a stretch or a dip on the tape. */
const props = defineProps<{ page: Schemas['VisitPage']; first: string[] }>()
const emit = defineEmits<{ latest: [buffers: Buffers] }>()
const SPAN_S = 60
const QUIET_MS = 4000
const MOST_ENDED = 6
const HEIGHT = 44
const LAST_S = [10, 30, 5] // the one that is used most first
const bar = useBar()
const outbox = useOutbox()
const narrow = useNarrow()
const { ended, open, capture, buffers, channels, newest, quietMs, trouble, start, end } = useLive(
  props.page.id,
)
const { trouble: refused, busy, run } = useAsyncAction()
const held = props.page.instruments.filter((one) => one.in_hand)
const chosen = ref((held.length ? held : props.page.instruments).map((one) => one.id))
const dips = ref<Schemas['DipsOut'] | null>(null)
const asked = ref('')
const events = ref<Schemas['TraceEventOut'][]>([])
watch(buffers, (now) => emit('latest', capture.value && !capture.value.ended_at ? now : {}))

const stage = computed(() => bar.stage ?? props.page.stages.at(-1)?.key ?? null)
/** A running capture shows its last minute, one that is over the whole of it. */
const span = computed(() => (capture.value?.ended_at ? Math.max(newest.value, 1) : SPAN_S))
const width = computed(() => (narrow.value ? 330 : 700))
const lanes = computed(() => {
  const frame = { newest: newest.value, span: span.value, width: width.value, height: HEIGHT }
  return lanesOf(channels.value, buffers.value, props.first, frame)
})
/** Where the events of the last minute lie on a lane. */
const ticks = computed(() =>
  events.value
    .filter((e) => e.at_s > newest.value - span.value)
    .map((e) => ((e.at_s - newest.value + span.value) / span.value) * width.value),
)
const troubled = computed(() => capture.value?.recorders.filter((r) => r.problems.length) ?? [])
const nameOf = (c: Schemas['CaptureOut']) =>
  `${clockAt(c.started_at, props.page.zone)}, ${c.recorders.map((r) => r.name).join(', ')}`

function writeWindow(start_s: number, end_s: number): void {
  if (!capture.value) return
  const body = { start_s, end_s, stage: stage.value, phase: bar.phase }
  const source = capture.value.id
  outbox.add(props.page.id, { kind: 'trace', what: 'means', source, body })
}
const writeLast = (seconds: number) =>
  writeWindow(Math.max(0, newest.value - seconds), newest.value)
const takeCsv = (file: File) =>
  run(async () => {
    const instrument = chosen.value[0]
    if (instrument === undefined) return
    await open((await uploadSamples(props.page.id, file, instrument)).id)
  })
const look = (quantity: string) =>
  run(async () => {
    if (!capture.value) return
    dips.value = await getDips(capture.value.id, quantity)
    asked.value = quantity
  })
function writeStep(at_s: number): void {
  if (!capture.value) return
  const body = { at_s, stage: stage.value, phase: bar.phase }
  outbox.add(props.page.id, { kind: 'trace', what: 'step', source: capture.value.id, body })
}
function writeWorst(): void {
  if (!capture.value) return
  const body = { quantity: asked.value, phase: bar.phase }
  outbox.add(props.page.id, { kind: 'trace', what: 'dips', source: capture.value.id, body })
}
</script>

<template>
  <section class="live" :class="{ on: capture }">
    <LiveHead
      v-model:chosen="chosen"
      :page="page"
      :capture="capture ?? null"
      @start="start(chosen, stage ?? '')"
      @end="end"
    >
      <a v-if="capture" class="btn" :href="`/api/captures/${capture.id}/samples.csv`" download>
        Samples as CSV
      </a>
      <FileButton
        v-else
        class="btn"
        accept=".csv,text/csv"
        :disabled="!chosen.length || !page.writable"
        @file="takeCsv"
      >
        Take samples in
      </FileButton>
    </LiveHead>
    <p v-if="trouble || refused" class="trouble" role="alert">{{ refused || trouble }}</p>
    <p v-if="!capture && ended.length" class="pair">
      <button v-for="c in ended.slice(0, MOST_ENDED)" :key="c.id" class="btn" @click="open(c.id)">
        Look at {{ nameOf(c) }}
      </button>
    </p>
    <template v-if="capture">
      <p v-if="quietMs > QUIET_MS && !capture.ended_at" class="trouble">
        No samples for {{ Math.round(quietMs / 1000) }} s: instrument off, or the line is down. What
        was recorded is kept.
      </p>
      <p v-for="r in troubled" :key="r.instrument" class="muted">
        {{ r.name }}: {{ r.problems.at(-1) }}
      </p>
      <p v-if="!lanes.length" class="muted">Waiting for the first samples …</p>
      <LiveLane
        v-for="lane in lanes"
        :key="lane.quantity"
        :lane="lane"
        :width="width"
        :height="HEIGHT"
        :ticks="ticks"
        :busy="busy"
        @dips="look(lane.quantity)"
      />
      <LiveEvents
        v-if="lanes.length"
        :capture="capture.id"
        :now="newest"
        :writable="page.writable"
        :over="!!capture.ended_at"
        @window="writeWindow"
        @step="writeStep"
        @events="events = $event"
      >
        <template v-if="!capture.ended_at">
          <button
            v-for="s in LAST_S"
            :key="s"
            class="btn"
            :disabled="busy || !page.writable"
            @click="writeLast(s)"
          >
            Write the last {{ s }} s
          </button>
        </template>
      </LiveEvents>
      <LiveDips
        v-if="dips"
        :dips="dips"
        :writable="page.writable"
        :busy="busy"
        @write="writeWorst"
      />
    </template>
  </section>
</template>

<style scoped>
.live {
  display: grid;
  gap: 8px;
  padding: 12px 16px;
  border: 1.5px solid var(--line);
  border-radius: 8px;
  background: var(--plate);
}
.on {
  border-color: var(--in);
  border-left-width: 6px;
}
.pair {
  display: flex;
  gap: 8px;
  flex-wrap: wrap;
}
.trouble {
  color: var(--out);
  font-weight: 500;
}
</style>
