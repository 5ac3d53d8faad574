<script setup lang="ts">
import { computed } from 'vue'
import type { Schemas } from '@/api/client'
import { plusDays } from '@/ui/days'
import { useGradually } from '@/ui/useGradually'
import BoardRow from './BoardRow.vue'
import type { BoardVisit, Place } from './useBoard'

/**
 * People down, days across. A visit is dropped on a cell, or moved by the arrow keys.
 * What is in sight is drawn first: a week of a firm of fourteen is 500 visits.
 */
const A_SCREEN = 60
const props = defineProps<{
  board: Schemas['Board']
  cell: (person: number, day: string) => BoardVisit[]
  find: (id: number) => BoardVisit | undefined
}>()
const emit = defineEmits<{ open: [visit: BoardVisit]; move: [visit: BoardVisit, to: Place] }>()
const drawn = useGradually(() => props.board.visits.length, A_SCREEN)
/** How many visits stand in the rows above each person's. */
const above = computed(() => {
  let sum = 0
  return props.board.people.map((person) => {
    const before = sum
    sum += props.board.visits.filter((visit) => visit.technician_id === person.id).length
    return before
  })
})
const head = (day: string) =>
  new Date(`${day}T12:00`).toLocaleDateString('en-GB', { weekday: 'short', day: 'numeric' })

function dropped(id: number, technician: number, day: string, before: number | null): void {
  const visit = props.find(id)
  if (visit) emit('move', visit, { technician, day, before })
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
        <BoardRow
          v-for="(person, row) in board.people"
          :key="person.id"
          :person="person"
          :days="board.days"
          :today="board.today"
          :cell="cell"
          :drawn="above[row]! < drawn"
          @open="(visit) => emit('open', visit)"
          @drop="(id, day, before) => dropped(id, person.id, day, before)"
          @shift="shifted"
        />
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
  font-weight: 600;
  text-align: left;
  vertical-align: top;
}
td {
  width: 128px;
}
.now {
  background: var(--track);
}
.today {
  font-weight: 400;
  color: var(--ink);
}
</style>
