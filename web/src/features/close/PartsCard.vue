<script setup lang="ts">
import type { Schemas } from '@/api/client'
import Card from '@/ui/Card.vue'
import { longDay } from '@/ui/moments'

/** Parts to order: what goes with each, who says yes, when it is here. */
defineProps<{ parts: Schemas['OrderPartOut'][]; writable: boolean }>()
defineEmits<{ begin: [starter: string] }>()
const ANSWERS = [
  ['Approved', 'approved owner ', ''],
  ['Declined', 'declined owner ', ''],
  ['Arrives …', 'arrives ', ' '],
] as const
</script>

<template>
  <Card title="Parts">
    <div v-for="part in parts" :key="part.name" class="part">
      <b>{{ part.name }}</b>
      <span :class="part.state.replace(' ', '-')">
        {{ [part.state, part.approver].filter(Boolean).join(', ') }}
      </span>
      <span class="muted">
        {{ part.kit.length ? `with: ${part.kit.join(', ')}` : 'nothing more goes with it' }}
      </span>
      <span class="muted">
        {{ part.arrives ? `here on ${longDay(part.arrives)}` : 'arrival not known' }}
      </span>
      <span v-if="part.rule" class="muted wide">{{ part.rule }}</span>
      <div v-if="writable" class="pair">
        <button
          v-for="[label, starter, end] in ANSWERS"
          :key="label"
          class="btn"
          @click="$emit('begin', `${starter}${part.name.toLowerCase()}${end}`)"
        >
          {{ label }}
        </button>
      </div>
    </div>
  </Card>
</template>

<style scoped>
.part {
  display: grid;
  grid-template-columns: 1fr auto;
  gap: 2px 14px;
  padding-top: 7px;
  border-top: 1px dashed var(--line);
}
.wide,
.pair {
  grid-column: 1 / -1;
}
.pair {
  display: flex;
  gap: 8px;
  flex-wrap: wrap;
  margin-top: 4px;
}
.approved {
  color: var(--in);
  font-weight: 600;
}
.declined {
  color: var(--out);
  font-weight: 600;
}
@media (max-width: 800px) {
  .part {
    grid-template-columns: 1fr;
  }
}
</style>
