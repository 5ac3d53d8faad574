<script setup lang="ts">
import { computed } from 'vue'
import type { Schemas } from '@/api/client'
import { useDesk } from '@/parts/desk/desk'
import LivePanel from '@/parts/live/LivePanel.vue'
import { useBar } from '@/parts/desk/bar'
import MoreLines from '@/parts/workings/MoreLines.vue'
import StagedFigures from '@/parts/workings/StagedFigures.vue'
import { useWorkings } from '@/parts/workings/useWorkings'
import MeterWatch from './MeterWatch.vue'
import PressureLadder from './PressureLadder.vue'

const props = defineProps<{ page: Schemas['VisitPage'] }>()
const desk = useDesk()
const bar = useBar()
const { workings, error } = useWorkings(
  () => props.page.id,
  () => props.page.version,
)
const stage = computed(() => bar.stage ?? props.page.stages.at(-1)?.key ?? '')
const screw = computed(() =>
  (workings.value?.gas ?? []).flatMap((s) =>
    s.figures
      .filter((f) => f.key.startsWith('manifold_gap') && f.aside)
      .map((f) => ({ ...f, label: s.label })),
  ),
)
</script>

<template>
  <p v-if="error" class="none" role="alert">{{ error.message }}</p>
  <p v-else-if="!workings" class="none muted">Working it out …</p>
  <div v-else class="gas">
    <LivePanel :page="page" :first="['manifold', 'supply']" />
    <section>
      <h2>
        From the supply down to the burner
        <span class="muted">bars: where it may lie. Touch one to write what you read.</span>
      </h2>
      <PressureLadder
        :rungs="workings.ladder"
        :writable="page.writable"
        @begin="(starter, station) => desk.begin(starter, station)"
      />
    </section>
    <section v-if="screw.length" class="screw">
      <p v-for="row in screw" :key="row.key" :class="row.state">
        <b>{{ row.label ? `${row.label} fire` : 'The screw' }}</b>
        {{ row.aside }}
      </p>
    </section>
    <div class="pair">
      <StagedFigures
        :stages="workings.gas"
        nothing="Write a manifold pressure, clock the meter, or say which orifices are fitted (orifice 4 #43): input, adjuster and cross-checks follow."
        @why="(figure) => desk.why(figure)"
      />
      <MeterWatch
        :dials="workings.dials"
        :stage="stage"
        :writable="page.writable"
        @begin="(line) => desk.begin(line, 'input')"
      />
    </div>
    <MoreLines
      :lines="workings.more['gas'] ?? []"
      :writable="page.writable"
      @begin="(line) => desk.begin(line)"
    />
    <p class="muted">{{ workings.mind.gas }}</p>
  </div>
</template>

<style scoped>
.gas {
  padding: 14px 20px 30px;
  display: grid;
  gap: 18px;
}
.none {
  padding: 30px 20px;
}
h2 {
  font-size: 18px;
  margin-bottom: 8px;
}
h2 span {
  font-weight: 400;
  font-size: 15px;
  margin-left: 6px;
}
.pair {
  display: grid;
  grid-template-columns: minmax(0, 3fr) minmax(250px, 2fr);
  gap: 26px;
  align-items: start;
}
.screw {
  display: grid;
  gap: 6px;
}
.screw p {
  padding: 9px 14px;
  border-left: 6px solid var(--in);
  background: var(--plate);
  font-size: 17px;
}
.screw b {
  display: inline-block;
}
.screw b::first-letter {
  text-transform: uppercase;
}
.screw .near {
  border-color: var(--near);
}
.screw .out {
  border-color: var(--out);
}
@media (max-width: 800px) {
  .gas {
    padding: 12px;
  }
  .pair {
    grid-template-columns: minmax(0, 1fr);
  }
}
</style>
