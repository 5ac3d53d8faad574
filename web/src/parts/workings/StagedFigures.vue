<script setup lang="ts">
import type { Schemas } from '@/api/client'
import FigureTable from '@/ui/FigureTable.vue'

defineProps<{ stages: Schemas['StageFigures'][]; nothing: string }>()
defineEmits<{ why: [figure: Schemas['Explained']] }>()
</script>

<template>
  <section class="figures">
    <p v-if="!stages.length" class="muted">{{ nothing }}</p>
    <div v-for="stage in stages" :key="stage.stage">
      <h3 v-if="stage.label">{{ stage.label }} fire</h3>
      <FigureTable :figures="stage.figures" @why="(figure) => $emit('why', figure)" />
    </div>
  </section>
</template>

<style scoped>
.figures {
  display: grid;
  gap: 14px;
}
h3 {
  font-size: 15px;
  color: var(--muted);
  font-weight: 600;
}
h3::first-letter {
  text-transform: uppercase;
}
</style>
