<script setup lang="ts">
import { computed, ref, watch } from 'vue'
import { getDips, uploadSamples, writeCaptureMeans, writeDips } from '@/api/calls'
import type { Schemas } from '@/api/client'
import { useTried } from '@/api/useTried'
import { useBar } from '@/features/visit/bar'
import { localIso } from '@/outbox/useOutbox'
import { clockAt } from '@/ui/moments'
import { pathOf, type Buffers } from './buffers'
import LiveEvents from './LiveEvents.vue'
import { useLive } from './useLive'

const props = defineProps<{ page: Schemas['VisitPage']; first: string[] }>()
const emit = defineEmits<{ page: [page: Schemas['VisitPage']]; latest: [buffers: Buffers] }>()
const SPAN_S = 60, WIDTH = window.innerWidth <= 800 ? 330 : 700, HEIGHT = 44
const bar = useBar()
const { ended, open, capture, buffers, channels, newest, quietMs, trouble, start, end } = useLive(props.page.id)
watch(buffers, (now) => emit('latest', capture.value && !capture.value.ended_at ? now : {}))
const chosen = ref<number[]>(props.page.instruments.filter((i) => i.in_date || i.kind !== 'analyzer').map((i) => i.id))
const dips = ref<Schemas['DipsOut'] | null>(null)
const { trouble: refused, busy, tried } = useTried()
const events = ref<Schemas['TraceEventOut'][]>([])
const stage = computed(() => bar.stage ?? props.page.stages.at(-1)?.key ?? '')
/** A running capture shows its last minute, one that is over the whole of it. */
const span = computed(() => (capture.value?.ended_at ? Math.max(newest.value, 1) : SPAN_S))
const clock = (moment: string) => clockAt(moment, props.page.zone)
/** What this view is about comes first. */
const rank = (quantity: string) => { const at = props.first.findIndex((name) => quantity.startsWith(name)); return at < 0 ? 99 : at }
/** A channel that its instrument no longer sends (a capacitor, once the motor runs) does not take a lane. */
const sends = (quantity: string) => !buffers.value[quantity] || (buffers.value[quantity].t.at(-1) ?? 0) > newest.value - span.value
const lanes = computed(() => channels.value.filter((c) => sends(c.quantity)).sort((a, b) => rank(a.quantity) - rank(b.quantity)).map((c) => {
  const buffer = buffers.value[c.quantity] ?? { t: [], v: [] }
  const drawn = pathOf(buffer, newest.value, span.value, WIDTH, HEIGHT)
  const shown = (si: number) => (si * c.scale + c.offset).toFixed(c.decimals).replace('-', '−')
  const last = buffer.v.at(-1)
  return { ...c, points: drawn.points, least: shown(drawn.low), most: shown(drawn.high), now: last === undefined ? '–' : shown(last) }
}))
const toggle = (id: number) => (chosen.value = chosen.value.includes(id) ? chosen.value.filter((n) => n !== id) : [...chosen.value, id])

const writeWindow = (startS: number, endS: number) => tried(async () => {
  if (!capture.value) return
  emit('page', await writeCaptureMeans(capture.value.id, { id: crypto.randomUUID(), start_s: startS, end_s: endS, stage: stage.value, phase: bar.phase, at: localIso(new Date()) }))
})
const write = (seconds: number) => writeWindow(Math.max(0, newest.value - seconds), newest.value)
/** Where the events of the last minute lie on a lane. */
const ticks = computed(() => events.value.filter((e) => e.at_s > newest.value - span.value).map((e) => ((e.at_s - newest.value + span.value) / span.value) * WIDTH))
const takeCsv = (event: Event) => tried(async () => {
  const field = event.target as HTMLInputElement
  const file = field.files?.[0]
  const instrument = chosen.value[0]
  if (!file || instrument === undefined) return
  const kept = await uploadSamples(props.page.id, file, instrument).finally(() => (field.value = ''))
  await open(kept.id)
})
const asked = ref('')
const look = (quantity: string) => tried(async () => {
  if (!capture.value) return
  dips.value = await getDips(capture.value.id, quantity)
  asked.value = quantity
})
const writeWorst = () => tried(async () => {
  if (capture.value) emit('page', await writeDips(capture.value.id, { id: crypto.randomUUID(), quantity: asked.value, phase: bar.phase, at: localIso(new Date()) }))
})
</script>

<template>
  <section class="live" :class="{ on: capture }">
    <div class="head"><h2>Live <span class="muted">{{ capture?.ended_at ? `recorded from ${clock(capture.started_at)} to ${clock(capture.ended_at)}` : capture ? `recording on this visit since ${clock(capture.started_at)}` : 'instruments that send by themselves' }}</span></h2>
      <template v-if="!capture"><button v-for="i in page.instruments" :key="i.id" class="chip" :class="{ picked: chosen.includes(i.id) }" :aria-pressed="chosen.includes(i.id)" @click="toggle(i.id)">{{ i.name }}</button><button class="btn strong" :disabled="!page.writable || !chosen.length" @click="start(chosen, stage)">Record</button></template>
      <button v-else class="btn" :disabled="!page.writable && !capture.ended_at" @click="end">{{ capture.ended_at ? 'Back' : 'Stop' }}</button>
    </div>
    <p v-if="trouble || refused" class="trouble" role="alert">{{ refused || trouble }}</p>
    <p v-if="!capture" class="pair"><button v-for="c in ended.slice(0, 6)" :key="c.id" class="btn" @click="open(c.id)">Look at {{ clock(c.started_at) }}, {{ c.recorders.map((r) => r.name).join(', ') }}</button><label class="btn file" :class="{ off: !chosen.length || !page.writable }">Take recorded samples in<input type="file" accept=".csv,text/csv" class="sr" :disabled="!chosen.length || !page.writable" @change="takeCsv" /></label></p>
    <template v-if="capture">
      <p v-if="quietMs > 4000 && !capture.ended_at" class="trouble">No samples for {{ Math.round(quietMs / 1000) }} s: instrument off, or the line is down. What was recorded is kept.</p>
      <p v-for="r in capture.recorders.filter((row) => row.problems.length)" :key="r.instrument" class="muted">{{ r.name }}: {{ r.problems.at(-1) }}</p>
      <p v-if="!lanes.length" class="muted">Waiting for the first samples …</p>
      <div v-for="lane in lanes" :key="lane.quantity" class="lane" :data-channel="lane.quantity">
        <span class="name">{{ lane.name }}</span>
        <svg :viewBox="`0 -2 ${WIDTH} ${HEIGHT + 4}`" preserveAspectRatio="none" role="img" :aria-label="`${lane.name}, the last minute`"><path :d="lane.points" fill="none" stroke="var(--in)" stroke-width="1.8" vector-effect="non-scaling-stroke" /><line v-for="x in ticks" :key="x" :x1="x" :x2="x" y1="-2" :y2="HEIGHT + 2" stroke="var(--near)" stroke-width="1.5" vector-effect="non-scaling-stroke" /></svg>
        <span class="ends muted"><i>{{ lane.most }}</i><i>{{ lane.least }}</i></span>
        <b>{{ lane.now }}<small> {{ lane.unit }}</small></b>
        <button class="ask" :disabled="busy" @click="look(lane.quantity)">dips</button>
      </div>
      <p v-if="lanes.length" class="pair"><template v-if="!capture.ended_at"><button v-for="s in [5, 10, 30]" :key="s" class="btn" :disabled="busy || !page.writable" @click="write(s)">Write the last {{ s }} s</button></template><a class="btn" :href="`/api/captures/${capture.id}/samples.csv`" download>All samples as CSV</a></p>
      <LiveEvents v-if="lanes.length" :capture="capture.id" :now="newest" :writable="page.writable" :over="!!capture.ended_at" :stage="stage" @page="emit('page', $event)" @window="writeWindow" @events="events = $event" />
      <div v-if="dips" class="dips"><p><b>{{ dips.says }}</b> <span v-if="dips.worst" class="muted">Lowest {{ dips.worst.text }} {{ dips.worst.unit }}, set point {{ dips.set_point.text }} {{ dips.set_point.unit }}.</span></p>
        <p v-for="said in dips.contacts" :key="said" class="contact">{{ said }}</p>
        <p v-if="dips.writes"><button class="btn" :disabled="busy || !page.writable" @click="writeWorst">Write the worst on the tape</button></p>
        <ul><li v-for="d in dips.dips.slice(-6)" :key="d.at_s">at {{ d.at_s.toFixed(0) }} s, {{ d.long_s.toFixed(1) }} s long, down to {{ d.least.text }} {{ d.least.unit }}<template v-if="d.order.length">: <b>{{ d.order.join(' → ') }}</b></template><span v-if="d.still.length" class="muted"> · still: {{ d.still.join(', ') }}</span></li></ul></div>
    </template>
  </section>
</template>

<style scoped>
.live { display: grid; gap: 8px; padding: 12px 16px; border: 1.5px solid var(--line); border-radius: 8px; background: var(--plate) } .on { border-color: var(--in); border-left-width: 6px } .head { display: flex; gap: 8px; align-items: center; flex-wrap: wrap } h2 { font-size: 18px; margin-right: auto } h2 span { font-weight: 400; font-size: 15px; margin-left: 6px } .chip { min-height: 44px; padding: 0 11px; border: 1.5px solid var(--line); border-radius: 6px; background: none; color: var(--muted) } .picked { border-color: var(--in); color: var(--ink); font-weight: 500 }
.lane { display: grid; grid-template-columns: 132px minmax(0, 1fr) 44px 118px 44px; gap: 8px; align-items: center; border-bottom: 1px solid var(--line); padding-bottom: 4px } svg { width: 100%; height: 48px; display: block } .name { line-height: 1.15; font-weight: 500 } .ends { display: grid; gap: 12px; font-size: 13px } .ends i { font-style: normal } .lane b small { margin-left: 4px } .lane b { font-size: 22px; text-align: right; white-space: nowrap } small { font-size: 14px; font-weight: 400; color: var(--muted) } .ask { min-height: 44px; border: 0; background: none; color: var(--in); text-decoration: underline dotted; padding: 0 }
.file { display: inline-flex; align-items: center } .off { opacity: .5 } .dips { display: grid; gap: 7px } .contact { border-left: 4px solid var(--string); padding-left: 10px } .pair { display: flex; gap: 8px; flex-wrap: wrap } .trouble { color: var(--out); font-weight: 500 } ul { margin: 4px 0 0; padding-left: 18px }
@media (max-width: 800px) { .lane { grid-template-columns: minmax(0, 1fr) auto 44px } svg { grid-column: 1 / -1; grid-row: 2 } .ends { display: none } }
</style>
