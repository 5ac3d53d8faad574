<script setup lang="ts">
import { NProgress, NSelect } from 'naive-ui'
import { computed, ref, watch } from 'vue'
import type { Schemas } from '@/api/client'
import FileButton from '@/ui/FileButton.vue'
import LogColumns from './LogColumns.vue'
import LogMeans from './LogMeans.vue'
import LogQuestions from './LogQuestions.vue'
import LogSample from './LogSample.vue'
import TraceChart from './TraceChart.vue'
import type { UseFlueLogReturn } from './useFlueLog'

/** An analyzer's log: taken in, its columns chosen, its steady stretch written on the tape. */
const props = defineProps<{
  page: Schemas['VisitPage']
  flueLog: UseFlueLogReturn
  target: string
}>()
/** The analyzer that the log comes from. */
const instrument = defineModel<number | null>('instrument', { required: true })
const { log, progress, read, trouble, busy, window: range, means } = props.flueLog
/** Of what goes on just now: first of the sending, then of the reading. */
const percentage = computed(() =>
  Math.round(100 * ((progress.value ?? 0) < 1 ? (progress.value ?? 0) : (read.value ?? 0))),
)
const mapping = ref(false)
const analyzers = computed(() =>
  props.page.instruments
    .filter((i) => i.kind === 'analyzer')
    .map((i) => ({ label: i.in_date ? i.name : `${i.name} (calibration overdue)`, value: i.id })),
)
watch(log, (now) => {
  if (
    now &&
    !now.trace &&
    !now.questions.some((q) => q.choices.length && (q.quantity || q.about !== 'column'))
  )
    mapping.value = true
})

function map(chosen: Schemas['MappingIn']): void {
  mapping.value = false
  void props.flueLog.map(chosen)
}
</script>

<template>
  <section class="logs">
    <div class="top">
      <h2>{{ log ? log.name : 'An analyzer’s log' }}</h2>
      <template v-if="page.writable">
        <NSelect
          v-model:value="instrument"
          class="instrument"
          :options="analyzers"
          :input-props="{ 'aria-label': 'Instrument' }"
        />
        <FileButton
          class="btn"
          accept=".csv,.txt,.tsv,.log,text/*"
          @file="(file) => flueLog.take(file, instrument)"
        >
          Read a log file
        </FileButton>
      </template>
      <button v-if="log" class="btn" :aria-expanded="mapping" @click="mapping = !mapping">
        Columns
      </button>
    </div>
    <template v-if="progress !== null">
      <NProgress type="line" :percentage="percentage" :processing="progress >= 1" />
      <p class="muted">{{ progress < 1 ? 'Sending the log …' : 'Reading the log …' }}</p>
    </template>
    <p v-if="trouble" class="trouble" role="alert">{{ trouble }}</p>
    <template v-if="log">
      <ul v-if="log.problems.length" class="problems">
        <li v-for="line in log.problems" :key="line">{{ line }}</li>
      </ul>
      <LogQuestions
        v-if="log.questions.length && page.writable"
        :questions="log.questions"
        :busy="busy"
        @answer="flueLog.answer"
      />
      <LogSample v-if="mapping || log.questions.length" :log="log" />
      <LogColumns v-if="mapping && page.writable" :log="log" :busy="busy" @map="map" />
      <TraceChart v-if="log.trace" :trace="log.trace" :window="range" @window="flueLog.choose" />
      <p v-if="log.trace && !range" class="trouble">
        No stretch of a minute holds still on every channel. Drag across the trace to choose one
        yourself.
      </p>
      <LogMeans
        v-if="means.length"
        :means="means"
        :target="target"
        :writable="page.writable"
        :busy="busy || !range"
        @write="flueLog.write"
      />
    </template>
    <p v-else-if="progress === null && page.writable" class="drop">
      Drop a CSV here, or pick it: any delimiter, any column names. Or type what the analyzer shows:
      <b>o2 6.4 co 46 t 118</b>
    </p>
  </section>
</template>

<style scoped>
.logs {
  display: grid;
  gap: 10px;
}
.top {
  display: flex;
  gap: 10px;
  align-items: center;
}
h2 {
  margin-right: auto;
  min-width: 0;
  overflow: hidden;
  text-overflow: ellipsis;
  font-size: 18px;
  font-weight: 600;
}
.instrument {
  width: 190px;
}
.top .btn {
  white-space: nowrap;
}
.drop {
  padding: 24px;
  border: 2px dashed var(--line);
  border-radius: 8px;
  text-align: center;
  color: var(--muted);
}
.drop b {
  color: var(--ink);
}
.problems {
  margin: 0;
  padding: 8px 12px 8px 28px;
  border-left: 4px solid var(--near);
  background: var(--plate);
}
.trouble {
  color: var(--out);
  font-weight: 500;
}
@media (max-width: 800px) {
  .top {
    flex-wrap: wrap;
  }
  h2 {
    flex-basis: 100%;
  }
}
</style>
