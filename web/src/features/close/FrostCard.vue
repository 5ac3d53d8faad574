<script setup lang="ts">
import { computed } from 'vue'
import type { Schemas } from '@/api/client'
import MoreLines from '@/parts/workings/MoreLines.vue'
import Card from '@/ui/Card.vue'

/** While there is no heat: how long pipes hold, who is there, what was agreed. */
const props = defineProps<{ frost: Schemas['FrostOut']; writable: boolean }>()
defineEmits<{ begin: [starter: string] }>()
const agreed = computed<[string, string[], string][]>(() => [
  ['Cold would harm', props.frost.vulnerable, 'vulnerable '],
  ['Heat for the time being', props.frost.temporary_heat, 'tempheat '],
  ['Drained', props.frost.drained, 'drained '],
  ['Refused, in their words', props.frost.refused, 'refused '],
  ['Told', props.frost.told, 'told '],
])
</script>

<template>
  <Card title="While there is no heat" class="cold">
    <p>
      <b>{{ frost.says }}</b>
    </p>
    <MoreLines :lines="frost.asked" :writable="writable" @begin="(line) => $emit('begin', line)" />
    <button
      v-for="[label, rows, starter] in agreed"
      :key="label"
      class="row"
      :disabled="!writable"
      @click="$emit('begin', starter)"
    >
      <span class="muted">{{ label }}</span>
      <span>{{ rows.join('; ') || 'not written down' }}</span>
    </button>
  </Card>
</template>

<style scoped>
.cold {
  border-left: 7px solid var(--air);
}
.row {
  display: grid;
  grid-template-columns: 170px 1fr;
  gap: 10px;
  align-items: center;
  width: 100%;
  min-height: 44px;
  padding: 4px 0;
  border: 0;
  border-top: 1px dashed var(--line);
  background: none;
  text-align: left;
}
@media (max-width: 800px) {
  .row {
    grid-template-columns: 1fr;
  }
}
</style>
