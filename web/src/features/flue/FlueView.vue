<script setup lang="ts">
import { NProgress, NSelect } from 'naive-ui'
import { storeToRefs } from 'pinia'
import { computed, ref, watch } from 'vue'
import type { Schemas } from '@/api/client'
import type { Buffers } from '@/features/live/buffers'
import LivePanel from '@/features/live/LivePanel.vue'
import { useBar } from '@/features/visit/bar'
import { PHASE_WORDS } from '@/features/visit/words'
import FigureTable from '@/ui/FigureTable.vue'
import FuelLine from './FuelLine.vue'
import LogColumns from './LogColumns.vue'
import TraceChart from './TraceChart.vue'
import { useFlueLog } from './useFlueLog'

const props = defineProps<{ page: Schemas['VisitPage'] }>()
const emit = defineEmits<{ page: [page: Schemas['VisitPage']]; why: [figure: Schemas['Explained']] }>()
const bar = useBar()
const flueLog = useFlueLog(() => props.page.id, (page) => emit('page', page))
const { log, progress, trouble, busy, window: range, means } = flueLog
const live = ref<Buffers>({})
const over = ref(false)
const mapping = ref(false)
const analyzers = computed(() => props.page.instruments.filter((i) => i.kind === 'analyzer'))
const { instrument } = storeToRefs(bar)
watch(() => props.page.logs.length, () => { const last = props.page.logs.at(-1); if (last && !log.value) flueLog.open(last.id) }, { immediate: true })
watch(log, (now) => { if (now && !now.trace) mapping.value = true })
const stage = computed(() => bar.stage ?? props.page.stages.at(-1)?.key ?? '')
const shown = computed(() => props.page.flue.find((f) => f.stage === stage.value) ?? props.page.flue.at(-1))
const title = computed(() => (shown.value?.label ? `${shown.value.label} fire` : 'this fire'))
const target = computed(() => `${PHASE_WORDS[bar.phase].toLowerCase()}${props.page.stages.length > 1 ? `, ${props.page.stages.find((s) => s.key === stage.value)?.label} fire` : ''}`)

function drop(event: DragEvent): void {
  over.value = false
  const file = event.dataTransfer?.files[0]
  if (file) void flueLog.take(file, instrument.value)
}
function pick(event: Event): void {
  const input = event.target as HTMLInputElement
  const file = input.files?.[0]
  if (file) void flueLog.take(file, instrument.value)
  input.value = ''
}
</script>

<template>
  <div class="flue" :class="{ over }" @dragover.prevent="over = true" @dragleave="over = false" @drop.prevent="drop">
    <LivePanel v-if="page.writable" :page="page" :first="['o2', 'co_', 'co2', 'flue_temp']" @page="(p) => emit('page', p)" @latest="live = $event" />
    <section v-if="page.writable || log" class="logs">
      <div class="top">
        <h2>{{ log ? log.name : 'An analyzer’s log' }}</h2>
        <NSelect v-if="page.writable" v-model:value="instrument" class="instrument" :options="analyzers.map((a) => ({ label: a.in_date ? a.name : `${a.name} (calibration overdue)`, value: a.id }))" aria-label="Instrument" />
        <label v-if="page.writable" class="btn">Read a log file<input type="file" accept=".csv,.txt,.tsv,.log,text/*" class="sr" @change="pick" /></label>
        <button v-if="log" class="btn" :aria-expanded="mapping" @click="mapping = !mapping">Columns</button>
      </div>
      <NProgress v-if="progress !== null" type="line" :percentage="Math.round(100 * progress)" :processing="progress >= 1" />
      <p v-if="progress !== null" class="muted">{{ progress < 1 ? 'Sending the log …' : 'Reading the log …' }}</p>
      <p v-if="trouble" class="trouble" role="alert">{{ trouble }}</p>
      <template v-if="log">
        <ul v-if="log.problems.length" class="problems"><li v-for="line in log.problems" :key="line">{{ line }}</li></ul>
        <LogColumns v-if="mapping && page.writable" :log="log" :busy="busy" @map="(m) => { mapping = false; flueLog.map(m) }" />
        <TraceChart v-if="log.trace" :trace="log.trace" :window="range" @window="flueLog.choose" />
        <p v-if="log.trace && !range" class="trouble">No stretch of a minute holds still on every channel. Drag across the trace to choose one yourself.</p>
        <div v-if="means.length" class="means">
          <span v-for="mean in means" :key="mean.quantity"><span class="muted">{{ mean.name.replace('Flue temperature', 'Flue').replace(/^Flue (?=C|O)/, '').replace('Combustion air', 'Air') }}</span> <b>{{ mean.mean.text }}</b> {{ mean.mean.unit }} <span class="muted">{{ mean.scatter }}</span></span>
          <button v-if="page.writable" class="btn strong" :disabled="busy || !range" @click="flueLog.write">Write on the tape, {{ target }}</button>
        </div>
      </template>
      <p v-else-if="progress === null && page.writable" class="drop">Drop a CSV here, or pick it: any delimiter, any column names. Or type what the analyzer shows: <b>o2 6.4 co 46 t 118</b></p>
    </section>
    <section class="where">
      <div><h2>Where it burns <span v-if="shown" class="muted">{{ title }}, {{ PHASE_WORDS[shown.phase as 'found'].toLowerCase() }}</span></h2><FuelLine :page="page" :stage="stage" :live="live" /></div>
      <div v-if="shown">
        <p v-if="page.stages.length > 1" class="stages"><button v-for="s in page.stages" :key="s.key" class="btn" :class="{ strong: s.key === stage }" :aria-pressed="s.key === stage" @click="bar.stage = s.key">{{ s.label }} fire<template v-if="!page.flue.some((f) => f.stage === s.key)">, not sampled</template></button></p>
        <FigureTable :figures="shown.figures" @why="(figure) => emit('why', figure)" />
        <p v-for="line in shown.doubts" :key="line" class="trouble">{{ line }}</p>
      </div>
      <p v-else class="muted nothing">No flue sample is on the tape yet: nothing is computed.</p>
    </section>
    <section v-if="shown" class="says">
      <article><h3>What these numbers say</h3><p v-for="line in shown.says" :key="line">{{ line }}</p></article>
      <article><h3>What they cannot say</h3><p v-for="line in shown.cannot_say" :key="line">{{ line }}</p></article>
    </section>
  </div>
</template>

<style scoped>
.flue { flex: 1 0 auto; padding: 14px 20px 24px; display: grid; gap: 18px; align-content: start } .over { outline: 3px dashed var(--in); outline-offset: -8px }
h2 { font-size: 18px; font-weight: 600 } h2 span { font-weight: 400; font-size: 16px } h3 { font-size: 14px; color: var(--muted); font-weight: 600; text-transform: uppercase; letter-spacing: .03em; margin-bottom: 4px }
.logs { display: grid; gap: 10px } .top { display: flex; gap: 10px; align-items: center } .top h2 { margin-right: auto; min-width: 0; overflow: hidden; text-overflow: ellipsis } .instrument { width: 190px } .top label.btn { display: inline-flex; align-items: center; cursor: pointer; white-space: nowrap }
.drop { padding: 24px; border: 2px dashed var(--line); border-radius: 8px; text-align: center; color: var(--muted) } .drop b { color: var(--ink) }
.problems { margin: 0; padding: 8px 12px 8px 28px; border-left: 4px solid var(--near); background: var(--plate) } .trouble { color: var(--out); font-weight: 500 }
.means { display: flex; flex-wrap: wrap; gap: 8px 22px; align-items: center } .means b { font-size: 19px } .means { font-size: 15px } .means .btn { margin-left: auto; padding: 0 14px }
.where { display: grid; grid-template-columns: minmax(240px, 5fr) minmax(0, 7fr); gap: 28px } .nothing { align-self: center } .stages { display: flex; gap: 8px; margin-bottom: 8px }
.says { display: grid; grid-template-columns: 1fr 1fr; gap: 16px } article { padding: 12px 14px; border: 1.5px solid var(--line); border-radius: 7px; background: var(--plate) } article:first-child { border-color: var(--ink) } article p + p { margin-top: 4px }
@media (max-width: 800px) { .flue { flex: 1 0 auto; padding: 12px } .where, .says { grid-template-columns: 1fr } .top { flex-wrap: wrap } .top h2 { flex-basis: 100% } .means .btn { margin-left: 0; width: 100% } }
</style>
