<script setup lang="ts">
import { ref } from 'vue'
import type { Schemas } from '@/api/client'
import { plusDays } from '@/ui/days'
import { shortDay } from '@/ui/moments'
import BoardCard from './BoardCard.vue'
import type { BoardVisit, Place } from './useBoard'

/** People down, days across. A visit is dropped on a cell, or moved by the arrow keys. */
const props = defineProps<{
  board: Schemas['Board']
  cell: (person: number, day: string) => BoardVisit[]
  find: (id: number) => BoardVisit | undefined
}>()
const emit = defineEmits<{ open: [visit: BoardVisit]; move: [visit: BoardVisit, to: Place] }>()
const over = ref('')
const here = (person: number, day: string) => `${person} ${day}`
const head = (day: string) =>
  new Date(`${day}T12:00`).toLocaleDateString('en-GB', { weekday: 'short', day: 'numeric' })

function dropped(event: DragEvent, person: number, day: string): void {
  over.value = ''
  const visit = props.find(Number(event.dataTransfer?.getData('text/plain')))
  const at = (event.target as HTMLElement).closest<HTMLElement>('[data-visit]')
  const before =
    at && Number(at.dataset['visit']) !== visit?.id ? Number(at.dataset['visit']) : null
  if (visit) emit('move', visit, { technician: person, day, before })
}
function shifted(visit: BoardVisit, days: number, people: number): void {
  const ids = props.board.people.map((one) => one.id)
  const at = ids.indexOf(visit.technician_id ?? ids[0] ?? 0) + people
  const technician = ids[at]
  if (technician !== undefined)
    emit('move', visit, { technician, day: plusDays(visit.day, days), before: null })
}
</script>

<template>
  <div class="grid" tabindex="0" role="region" aria-label="Days and people">
    <table>
      <thead>
        <tr>
          <td></td>
          <th
            v-for="day in board.days"
            :key="day"
            scope="col"
            :class="{ now: day === board.today }"
          >
            {{ head(day) }}
            <span v-if="day === board.today" class="today">today</span>
          </th>
        </tr>
      </thead>
      <tbody>
        <tr v-for="person in board.people" :key="person.id">
          <th scope="row">
            {{ person.name }}
            <span class="muted">{{ person.van }}</span>
            <span
              v-if="person.licence_until && person.licence_until < plusDays(board.today, 60)"
              class="ends"
            >
              licence ends {{ shortDay(person.licence_until) }}
            </span>
          </th>
          <td
            v-for="day in board.days"
            :key="day"
            :data-cell="here(person.id, day)"
            :class="{ over: over === here(person.id, day), now: day === board.today }"
            @dragover.prevent="over = here(person.id, day)"
            @dragleave="over = ''"
            @drop.prevent="dropped($event, person.id, day)"
          >
            <BoardCard
              v-for="visit in cell(person.id, day)"
              :key="visit.id"
              :visit="visit"
              :helps="visit.technician_id !== person.id"
              @open="emit('open', visit)"
              @shift="(days, people) => shifted(visit, days, people)"
            />
          </td>
        </tr>
      </tbody>
    </table>
  </div>
</template>

<style scoped>
.grid {
  overflow-x: auto;
}
table {
  width: 100%;
  min-width: 1000px;
  border-collapse: collapse;
  table-layout: fixed;
}
th,
td {
  padding: 6px;
  border-bottom: 1px solid var(--line);
  text-align: left;
  vertical-align: top;
}
thead th {
  font-weight: 600;
}
thead td,
tbody th {
  width: 128px;
}
tbody th {
  position: sticky;
  left: 0;
  z-index: 1;
  background: var(--paper);
  font-weight: 600;
}
tbody th span {
  display: block;
  font-size: 15px;
  font-weight: 400;
}
.ends {
  color: var(--near-ink);
}
tbody td {
  height: 74px;
  border-left: 1px solid var(--line);
}
td :deep(.card + .card) {
  margin-top: 6px;
}
.now {
  background: var(--track);
}
.today {
  font-weight: 400;
  color: var(--ink);
}
.over {
  outline: 2.5px dashed var(--ink);
  outline-offset: -3px;
}
</style>
