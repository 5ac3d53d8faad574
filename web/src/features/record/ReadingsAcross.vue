<script setup lang="ts">
import type { Schemas } from '@/api/client'
import { shortDay } from '@/ui/moments'
import StateMark from '@/ui/StateMark.vue'
import TrendLine from './TrendLine.vue'

/** The readings of a unit across its visits, and how each moves over the years. */
defineProps<{ unit: Schemas['UnitRecord'] }>()
const isMarked = (cell: Schemas['RecordCell']) => cell.state === 'out' || cell.state === 'near'
</script>

<template>
  <section>
    <h2>
      Readings across the visits
      <span class="muted">as found → as left; dashed: the limits</span>
    </h2>
    <div class="across" tabindex="0" role="region" aria-label="Readings across the visits">
      <table>
        <thead>
          <tr>
            <th scope="col">Station</th>
            <th scope="col">Over the years</th>
            <th v-for="visit in unit.visits" :key="visit.id" scope="col">
              {{ shortDay(visit.day) }}
            </th>
          </tr>
        </thead>
        <tbody>
          <tr v-for="row in unit.rows" :key="row.name">
            <th scope="row">
              {{ row.name }}
              <small>{{ row.unit }}</small>
            </th>
            <td class="trend">
              <TrendLine v-if="row.points.length > 1" :row="row" />
              {{ row.trend }}
            </td>
            <td v-for="(cell, i) in row.cells" :key="i" :class="cell?.state">
              <span v-if="cell" class="cell">
                <StateMark v-if="isMarked(cell)" :state="cell.state" :size="11" />
                {{ [cell.found, cell.left].filter(Boolean).join(' → ') }}
              </span>
              <span v-else class="muted">–</span>
            </td>
          </tr>
        </tbody>
      </table>
    </div>
  </section>
</template>

<style scoped>
h2 {
  margin-bottom: 6px;
  font-size: 18px;
}
h2 span {
  margin-left: 6px;
  font-size: 15px;
  font-weight: 400;
}
.across {
  overflow-x: auto;
  border: 1.5px solid var(--line);
  border-radius: 7px;
  background: var(--plate);
}
table {
  width: 100%;
  border-collapse: collapse;
}
th,
td {
  padding: 7px 12px;
  border-bottom: 1px solid var(--line);
  text-align: left;
  white-space: nowrap;
}
th {
  font-weight: 500;
}
th:first-child {
  position: sticky;
  left: 0;
  background: var(--plate);
}
small {
  font-size: 14px;
  color: var(--muted);
}
.cell {
  display: inline-flex;
  gap: 6px;
  align-items: center;
}
.out {
  color: var(--out);
  font-weight: 600;
}
.near {
  color: var(--near-ink);
  font-weight: 600;
}
.trend {
  min-width: 174px;
  white-space: normal;
  font-size: 15px;
  line-height: 1.2;
}
tbody th {
  max-width: 150px;
  white-space: normal;
}
@media (max-width: 700px) {
  th:first-child {
    max-width: 118px;
    white-space: normal;
  }
  th,
  td {
    padding: 7px 8px;
  }
}
</style>
