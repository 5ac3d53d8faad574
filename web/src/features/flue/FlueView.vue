<script setup lang="ts">
import { computed, ref, watch } from 'vue'
import type { Schemas } from '@/api/client'
import { useBar } from '@/parts/desk/bar'
import { useDesk } from '@/parts/desk/desk'
import { PHASE_WORDS } from '@/parts/desk/words'
import type { Buffers } from '@/parts/live/buffers'
import LivePanel from '@/parts/live/LivePanel.vue'
import FigureTable from '@/ui/FigureTable.vue'
import FlueSays from './FlueSays.vue'
import FuelLine from './FuelLine.vue'
import LogPanel from './LogPanel.vue'
import { useFlueLog } from './useFlueLog'

const props = defineProps<{ page: Schemas['VisitPage'] }>()
const desk = useDesk()
const bar = useBar()
const flueLog = useFlueLog(() => props.page.id)
const analyzer = ref(
  props.page.instruments.find((one) => one.kind === 'analyzer' && one.in_hand)?.id ?? null,
)
const live = ref<Buffers>({})
const over = ref(false)
watch(
  () => props.page.logs.length,
  () => {
    const last = props.page.logs.at(-1)
    if (last && !flueLog.log.value) flueLog.open(last.id)
  },
  { immediate: true },
)
const stage = computed(() => bar.stage ?? props.page.stages.at(-1)?.key ?? '')
const shown = computed(
  () => props.page.flue.find((f) => f.stage === stage.value) ?? props.page.flue.at(-1),
)
const phase = computed(() => PHASE_WORDS[bar.phase].toLowerCase())
const fire = computed(() => (shown.value?.label ? `${shown.value.label} fire` : 'this fire'))
const target = computed(() => {
  const label = props.page.stages.find((s) => s.key === stage.value)?.label
  return props.page.stages.length > 1 ? `${phase.value}, ${label} fire` : phase.value
})
const isSampled = (key: string) => props.page.flue.some((f) => f.stage === key)

function drop(event: DragEvent): void {
  over.value = false
  const file = event.dataTransfer?.files[0]
  if (file) void flueLog.take(file, analyzer.value)
}
</script>

<template>
  <div
    class="flue"
    :class="{ over }"
    @dragover.prevent="over = true"
    @dragleave="over = false"
    @drop.prevent="drop"
  >
    <LivePanel
      v-if="page.writable"
      :page="page"
      :first="['o2', 'co_', 'co2', 'flue_temp']"
      @latest="live = $event"
    />
    <LogPanel
      v-if="page.writable || flueLog.log.value"
      v-model:instrument="analyzer"
      :page="page"
      :flue-log="flueLog"
      :target="target"
    />
    <section class="where">
      <div>
        <h2>
          Where it burns
          <span v-if="shown" class="muted">
            {{ fire }}, {{ PHASE_WORDS[shown.phase as 'found'].toLowerCase() }}
          </span>
        </h2>
        <FuelLine :page="page" :stage="stage" :live="live" />
      </div>
      <div v-if="shown">
        <p v-if="page.stages.length > 1" class="stages">
          <button
            v-for="s in page.stages"
            :key="s.key"
            class="btn"
            :class="{ strong: s.key === stage }"
            :aria-pressed="s.key === stage"
            @click="bar.stage = s.key"
          >
            {{ s.label }} fire{{ isSampled(s.key) ? '' : ', not sampled' }}
          </button>
        </p>
        <FigureTable :figures="shown.figures" @why="desk.why" />
        <p v-for="line in shown.doubts" :key="line" class="trouble">{{ line }}</p>
      </div>
      <p v-else class="muted nothing">No flue sample is on the tape yet: nothing is computed.</p>
    </section>
    <FlueSays v-if="shown" :flue="shown" />
  </div>
</template>

<style scoped>
.flue {
  flex: 1 0 auto;
  display: grid;
  gap: 18px;
  align-content: start;
  padding: 14px 20px 24px;
}
.over {
  outline: 3px dashed var(--in);
  outline-offset: -8px;
}
h2 {
  font-size: 18px;
  font-weight: 600;
}
h2 span {
  font-size: 16px;
  font-weight: 400;
}
.trouble {
  color: var(--out);
  font-weight: 500;
}
.where {
  display: grid;
  grid-template-columns: minmax(240px, 5fr) minmax(0, 7fr);
  gap: 28px;
}
.nothing {
  align-self: center;
}
.stages {
  display: flex;
  gap: 8px;
  margin-bottom: 8px;
}
@media (max-width: 800px) {
  .flue {
    padding: 12px;
  }
  .where {
    grid-template-columns: minmax(0, 1fr);
  }
}
</style>
