<script setup lang="ts">
import type { Schemas } from '@/api/client'
import { levelState } from '@/ui/levels'
import { shortDay } from '@/ui/moments'
import StateMark from '@/ui/StateMark.vue'

/** The newest readings of a site's units beside each other, each with its verdict. */
defineProps<{ site: Schemas['SiteOut'] }>()
</script>

<template>
  <div class="across" tabindex="0" role="region" aria-label="The units side by side">
    <table>
      <thead>
        <tr>
          <th scope="col">Newest reading</th>
          <th v-for="unit in site.units" :key="unit.label" scope="col">
            <RouterLink :to="`/units/${unit.id}`">{{ unit.label }}</RouterLink>
            <span>{{ unit.kind }}</span>
            <span v-if="unit.gas_line">{{ unit.gas_line }}</span>
            <span v-if="unit.level && unit.day" class="stand">
              <StateMark :state="levelState(unit.level)" :size="12" />
              {{ unit.title }}, {{ shortDay(unit.day) }}
            </span>
            <span v-else>Never visited</span>
          </th>
        </tr>
      </thead>
      <tbody>
        <tr v-for="row in site.rows" :key="`${row.name}${row.stage}`">
          <th scope="row">
            {{ row.name }}
            <span v-if="row.stage">{{ row.stage }} fire</span>
          </th>
          <td v-for="(cell, i) in row.cells" :key="i" :class="cell?.state">
            <template v-if="cell">
              <b>{{ cell.text }}</b>
              <small>{{ cell.unit }}</small>
              <span v-if="cell.side" class="side">
                <StateMark :state="cell.state === 'out' ? 'out' : 'near'" :size="11" />
                {{ cell.side }}
              </span>
              <small class="day">{{ shortDay(cell.day) }}</small>
            </template>
            <span v-else class="muted">–</span>
          </td>
        </tr>
      </tbody>
    </table>
  </div>
</template>

<style scoped>
.across {
  overflow-x: auto;
  border: 1.5px solid var(--line);
  border-radius: 7px;
  background: var(--plate);
}
table {
  border-collapse: collapse;
  width: 100%;
}
th,
td {
  padding: 9px 14px;
  text-align: left;
  vertical-align: top;
  border-bottom: 1px solid var(--line);
}
tbody th {
  font-weight: 500;
  white-space: nowrap;
}
thead th {
  font-size: 18px;
  min-width: 150px;
}
thead th a {
  display: inline-flex;
  align-items: center;
  min-width: 44px;
  min-height: 44px;
}
thead th span {
  display: block;
  font-size: 14px;
  font-weight: 400;
  color: var(--muted);
}
thead th .stand {
  display: flex;
  gap: 6px;
  align-items: baseline;
}
th:first-child {
  position: sticky;
  left: 0;
  background: var(--plate);
  min-width: 130px;
}
td b {
  font-size: 19px;
  font-weight: 600;
}
small {
  color: var(--muted);
  font-size: 14px;
}
.day {
  display: block;
  font-size: 13px;
}
.side {
  display: inline-flex;
  gap: 5px;
  align-items: center;
  margin-left: 8px;
  font-weight: 500;
}
.out b,
.out .side {
  color: var(--out);
}
.near b,
.near .side {
  color: var(--near-ink);
}
@media (max-width: 700px) {
  tbody th {
    white-space: normal;
  }
  th,
  td {
    padding: 8px 10px;
  }
  th:first-child {
    min-width: 104px;
    max-width: 104px;
  }
}
</style>
