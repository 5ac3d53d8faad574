<script setup lang="ts">
import { computed } from 'vue'
import { levelState } from '@/ui/levels'
import { shortDay } from '@/ui/moments'
import StateMark from '@/ui/StateMark.vue'
import type { BoardVisit } from './useBoard'

/** A visit on the board, or beside it: opened by a touch or Enter, taken elsewhere by dragging or the arrow keys. */
const props = defineProps<{ visit: BoardVisit; helps?: boolean; dated?: boolean }>()
defineEmits<{ open: []; shift: [days: number, people: number] }>()
const movable = computed(() => props.visit.state !== 'closed' && !props.helps)
const said = computed(() =>
  props.visit.state === 'planned' ? props.visit.complaint : props.visit.title,
)
const when = computed(() => props.visit.start?.slice(0, 5) ?? '')
function dragged(event: DragEvent): void {
  event.dataTransfer?.setData('text/plain', String(props.visit.id))
}
</script>

<template>
  <div
    role="button"
    tabindex="0"
    class="card"
    :class="[visit.state, `urgent-${visit.urgent}`]"
    :data-visit="visit.id"
    :draggable="movable"
    @dragstart="dragged"
    @click="$emit('open')"
    @keydown.enter.prevent="$emit('open')"
    @keydown.space.prevent="$emit('open')"
    @keydown.left.prevent="movable && $emit('shift', -1, 0)"
    @keydown.right.prevent="movable && $emit('shift', 1, 0)"
    @keydown.up.prevent="movable && $emit('shift', 0, -1)"
    @keydown.down.prevent="movable && $emit('shift', 0, 1)"
  >
    <span class="name">
      <StateMark :state="visit.level ? levelState(visit.level) : 'none'" :size="12" />
      <b>{{ visit.label }}</b>
    </span>
    <span class="place">{{ visit.place }}</span>
    <span class="why">
      <b v-if="when">{{ when }}</b>
      {{ helps ? 'helps: ' : '' }}{{ visit.reason.toLowerCase() }}
    </span>
    <span v-if="visit.over && (dated || visit.state !== 'closed')" class="over">
      {{ dated ? `was for ${shortDay(visit.day)}` : '' }} {{ visit.over }}
      {{ visit.over === 1 ? 'day' : 'days' }} overdue
    </span>
    <span v-if="said" class="said">{{ said }}</span>
    <span v-if="visit.vulnerable" class="there">{{ visit.vulnerable }}</span>
  </div>
</template>

<style scoped>
.card {
  display: grid;
  gap: 1px;
  width: 100%;
  min-height: 44px;
  padding: 6px 9px;
  border: 1.5px solid var(--line);
  border-left: 6px solid var(--air);
  border-radius: 6px;
  background: var(--plate);
  color: inherit;
  font: inherit;
  font-size: 15px;
  line-height: 1.25;
  text-align: left;
  cursor: pointer;
}
.card[draggable='true'] {
  cursor: grab;
}
.under_way {
  border-color: var(--ink);
}
.urgent-4 {
  border-left-color: var(--out);
}
.urgent-3 {
  border-left-color: var(--near);
}
.closed {
  border-left-color: var(--line);
}
.name {
  display: flex;
  gap: 6px;
  align-items: baseline;
}
.place {
  overflow-wrap: break-word;
}
.why,
.said,
.there {
  overflow: hidden;
  text-overflow: ellipsis;
}
.said,
.there {
  display: -webkit-box;
  -webkit-line-clamp: 2;
  -webkit-box-orient: vertical;
  color: var(--muted);
}
.over {
  color: var(--near-ink);
  font-weight: 600;
}
</style>
