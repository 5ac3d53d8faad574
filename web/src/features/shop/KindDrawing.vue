<script setup lang="ts">
import { computed, ref } from 'vue'
import type { Schemas } from '@/api/client'
import ChipRow from '@/ui/ChipRow.vue'

/** The paths of a kind as they are drawn, with one stage or with two. */
const props = defineProps<{ check: Schemas['KindCheck'] }>()
const STAGES = [
  { key: 'one', name: 'one stage' },
  { key: 'two', name: 'two stages' },
]
const stages = ref('one')
const drawn = computed(() =>
  stages.value === 'two' ? props.check.two_stages : props.check.one_stage,
)
</script>

<template>
  <section v-if="drawn.length" aria-label="The drawing">
    <ChipRow
      label="Drawn for a unit with"
      :options="STAGES"
      :chosen="stages"
      @choose="(key) => (stages = key)"
    />
    <div class="paths">
      <div
        v-for="p in drawn"
        :key="p.key"
        class="path"
        :style="{ '--path': `var(--${p.key})`, '--path-ink': `var(--${p.key}-ink)` }"
      >
        <b>{{ p.name }} {{ p.direction === 'up' ? '↑' : '↓' }}</b>
        <span v-for="(station, i) in p.stations" :key="i">{{ station }}</span>
      </div>
    </div>
  </section>
</template>

<style scoped>
section {
  display: grid;
  gap: 8px;
}
.paths {
  display: grid;
  grid-template-columns: repeat(auto-fit, minmax(150px, 1fr));
  gap: 12px;
}
.path {
  display: grid;
  gap: 4px;
  align-content: start;
  padding-left: 10px;
  border-left: 6px solid var(--path);
}
.path b {
  color: var(--path-ink);
}
.path span {
  padding: 4px 8px;
  border: 1.5px solid var(--line);
  border-radius: 6px;
  background: var(--plate);
  line-height: 1.2;
}
</style>
