<script setup lang="ts">
import { ref } from 'vue'
import type { Schemas } from '@/api/client'
import { plusDays } from '@/ui/days'
import { shortDay } from '@/ui/moments'
import BoardCard from './BoardCard.vue'
import { cellKey } from './cells'
import type { BoardVisit } from './useBoard'

/** Somebody's days. A row is a part of its own, so that a change of one draws no other anew. */
const props = defineProps<{
  person: Schemas['BoardPerson']
  days: readonly string[]
  today: string
  cell: (person: number, day: string) => BoardVisit[]
  drawn: boolean
}>()
const emit = defineEmits<{
  open: [visit: BoardVisit]
  drop: [id: number, day: string, before: number | null]
  shift: [visit: BoardVisit, days: number, people: number]
}>()
const over = ref('')
const visits = (day: string) => (props.drawn ? props.cell(props.person.id, day) : [])

function dropped(event: DragEvent, day: string): void {
  over.value = ''
  const id = Number(event.dataTransfer?.getData('text/plain'))
  const at = (event.target as HTMLElement).closest<HTMLElement>('[data-visit]')
  emit(
    'drop',
    id,
    day,
    at && Number(at.dataset['visit']) !== id ? Number(at.dataset['visit']) : null,
  )
}
</script>

<template>
  <tr>
    <th scope="row">
      {{ person.name }}
      <span class="muted">{{ person.van }}</span>
      <span v-if="person.licence_until && person.licence_until < plusDays(today, 60)" class="ends">
        licence ends {{ shortDay(person.licence_until) }}
      </span>
    </th>
    <td
      v-for="day in days"
      :key="day"
      :data-cell="cellKey(person.id, day)"
      :class="{ over: over === day, now: day === today }"
      @dragover.prevent="over = day"
      @dragleave="over = ''"
      @drop.prevent="dropped($event, day)"
    >
      <BoardCard
        v-for="visit in visits(day)"
        :key="visit.id"
        :visit="visit"
        :helps="visit.technician_id !== person.id"
        @open="emit('open', visit)"
        @shift="(byDays, people) => emit('shift', visit, byDays, people)"
      />
    </td>
  </tr>
</template>

<style scoped>
th,
td {
  padding: 6px;
  border-bottom: 1px solid var(--line);
  text-align: left;
  vertical-align: top;
}
th {
  position: sticky;
  left: 0;
  z-index: 1;
  width: 128px;
  background: var(--paper);
  font-weight: 600;
}
th span {
  display: block;
  font-size: 15px;
  font-weight: 400;
}
.ends {
  color: var(--near-ink);
}
td {
  height: 74px;
  border-left: 1px solid var(--line);
}
td :deep(.card + .card) {
  margin-top: 6px;
}
.now {
  background: var(--track);
}
.over {
  outline: 2.5px dashed var(--ink);
  outline-offset: -3px;
}
</style>
