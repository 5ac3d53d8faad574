<script setup lang="ts">
import type { Schemas } from '@/api/client'
import { useDesk } from '@/parts/desk/desk'
import LivePanel from '@/parts/live/LivePanel.vue'
import MoreLines from '@/parts/workings/MoreLines.vue'
import StagedFigures from '@/parts/workings/StagedFigures.vue'
import { useWorkings } from '@/parts/workings/useWorkings'
import SpillClock from './SpillClock.vue'
import SwitchBar from './SwitchBar.vue'
import VentSketch from './VentSketch.vue'

const props = defineProps<{ page: Schemas['VisitPage'] }>()
const desk = useDesk()
const { workings, error } = useWorkings(
  () => props.page.id,
  () => props.page.version,
)
</script>

<template>
  <p v-if="error" class="none" role="alert">{{ error.message }}</p>
  <p v-else-if="!workings" class="none muted">Working it out …</p>
  <div v-else class="draft">
    <LivePanel :page="page" :first="['draft', 'volts']" />
    <section v-if="workings.switches.length" class="switches">
      <h2>
        At the switch
        <span class="muted">tee into the hose; gauge zeroed in open air; cold start and warm</span>
      </h2>
      <SwitchBar
        v-for="row in workings.switches"
        :key="row.stage"
        :row="row"
        :writable="page.writable"
        @begin="(line) => desk.begin(line, 'draft')"
      />
    </section>
    <p v-if="workings.switches.length" class="order">{{ workings.mind.draft }}</p>
    <div class="pair">
      <section>
        <h2>The vent</h2>
        <VentSketch
          :vent="workings.vent"
          :writable="page.writable"
          @begin="(line) => desk.begin(line, 'vent')"
        />
      </section>
      <SpillClock
        v-if="workings.vent.natural || workings.vent.spillage"
        :vent="workings.vent"
        :writable="page.writable"
        @begin="(line) => desk.begin(line, 'vent')"
      />
    </div>
    <StagedFigures
      :stages="workings.draft"
      nothing="Write the suction at the switch (draft .92), or height, outdoor temperature and a flue sample: margin and theoretical draft follow."
      @why="(figure) => desk.why(figure)"
    />
    <MoreLines
      :lines="workings.more['draft'] ?? []"
      :writable="page.writable"
      @begin="(line) => desk.begin(line)"
    />
  </div>
</template>

<style scoped>
.draft {
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
.switches {
  display: grid;
  gap: 10px;
}
.order {
  padding: 9px 14px;
  border-left: 5px solid var(--fire);
  background: var(--plate);
}
.pair {
  display: grid;
  grid-template-columns: repeat(auto-fit, minmax(300px, 1fr));
  gap: 26px;
  align-items: start;
}
@media (max-width: 800px) {
  .draft {
    padding: 12px;
  }
}
</style>
