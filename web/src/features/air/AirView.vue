<script setup lang="ts">
import { computed } from 'vue'
import type { Schemas } from '@/api/client'
import { useDesk } from '@/parts/desk/desk'
import StationPlate from '@/parts/drawing/StationPlate.vue'
import MoreLines from '@/parts/workings/MoreLines.vue'
import StagedFigures from '@/parts/workings/StagedFigures.vue'
import { useWorkings } from '@/parts/workings/useWorkings'

const props = defineProps<{ page: Schemas['VisitPage'] }>()
const desk = useDesk()
const { workings, error } = useWorkings(
  () => props.page.id,
  () => props.page.version,
)
const path = computed(() => props.page.paths.find((p) => p.key === 'air' || p.key === 'water'))
const water = computed(() => path.value?.key === 'water')
const lines = computed(() => workings.value?.more[water.value ? 'water' : 'air'] ?? [])
</script>

<template>
  <p v-if="error" class="none" role="alert">{{ error.message }}</p>
  <p v-else-if="!workings || !path" class="none muted">
    {{ path ? 'Working it out …' : 'This unit has no path of air or water.' }}
  </p>
  <div v-else class="air">
    <section>
      <h2>
        {{ path.name }}
        <span class="muted">{{ path.hint }}</span>
      </h2>
      <div class="plates">
        <StationPlate
          v-for="s in path.stations"
          :key="s.key"
          :station="s"
          :path="path.key"
          :chosen="false"
          @pick="desk.begin(s.starter, s.key)"
        />
      </div>
    </section>
    <MoreLines :lines="lines" :writable="page.writable" @begin="(line) => desk.begin(line)" />
    <StagedFigures
      :stages="water ? workings.water : workings.air"
      :nothing="
        water
          ? 'Write the water rise (wrise 20) or supply and return (ws 160, wr 140): output and flow follow.'
          : 'Write the rise (rise 48) or return and supply: airflow at this altitude follows.'
      "
      @why="(figure) => desk.why(figure)"
    />
    <p class="muted">{{ water ? workings.mind.water : workings.mind.air }}</p>
  </div>
</template>

<style scoped>
.air {
  padding: 14px 20px 30px;
  display: grid;
  gap: 16px;
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
.plates {
  display: grid;
  grid-template-columns: repeat(auto-fill, minmax(190px, 1fr));
  gap: 10px;
}
@media (max-width: 800px) {
  .air {
    padding: 12px;
  }
}
</style>
