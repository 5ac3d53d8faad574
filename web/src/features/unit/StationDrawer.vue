<script setup lang="ts">
import type { Schemas } from '@/api/client'
import { shortDay } from '@/ui/moments'
import StateMark from '@/ui/StateMark.vue'
import WhyList from '@/ui/WhyList.vue'

defineProps<{
  station: Schemas['StationOut']
  earlier: Schemas['EarlierVisit'][]
  writable: boolean
}>()
const emit = defineEmits<{ begin: [starter: string] }>()
const PHASE: Record<string, string> = { found: 'as found', left: 'as left', trial: 'trial' }

/** What earlier visits read here, by the names of this station's readings. */
function before(
  names: string[],
  visits: Schemas['EarlierVisit'][],
): { day: string; lines: string[] }[] {
  return visits
    .map((v) => ({
      day: v.day,
      lines: v.readings.filter((line) => names.some((name) => line.startsWith(name))),
    }))
    .filter((row) => row.lines.length)
}
</script>

<template>
  <div class="station">
    <p v-if="station.caution" class="caution" role="note">
      <b>Mind:</b>
      {{ station.caution }}
    </p>
    <p v-for="text in station.missing" :key="text" class="row">
      <StateMark state="none" />
      Still to show: {{ text }}
    </p>
    <p v-if="station.words" class="words">{{ station.words }}</p>
    <table v-if="station.readings.length">
      <tbody>
        <tr v-for="r in station.readings" :key="r.quantity + r.stage">
          <td><StateMark :state="r.verdict || 'noted'" :size="14" /></td>
          <td>
            {{ r.name }}{{ r.stage === 'low' || r.stage === 'high' ? `, ${r.stage}` : '' }}
            <br />
            <span class="muted">
              {{ PHASE[r.phase] }}{{ r.found ? `, found ${r.found.text} ${r.found.unit}` : '' }}
            </span>
          </td>
          <td class="num">
            <b>{{ r.shown.text }}</b>
            {{ r.shown.unit }}
            <br />
            <span class="muted">
              {{ r.limit }}
              <template v-if="r.source">
                <br />
                {{ r.source }}
              </template>
            </span>
          </td>
        </tr>
      </tbody>
    </table>
    <button v-if="writable" class="btn strong" @click="emit('begin', station.starter)">
      Write here: {{ station.starter }}…
    </button>
    <section
      v-if="
        before(
          station.readings.map((r) => r.name).concat(station.name.split(',')[0] ?? ''),
          earlier,
        ).length
      "
    >
      <h3>What it read before</h3>
      <p
        v-for="row in before(
          station.readings.map((r) => r.name).concat(station.name.split(',')[0] ?? ''),
          earlier,
        )"
        :key="row.day"
      >
        <span class="muted">{{ shortDay(row.day) }}</span>
        <span v-for="line in row.lines" :key="line" class="before">{{ line }}</span>
      </p>
    </section>
    <WhyList v-for="figure in station.why" :key="figure.key" :figure="figure" />
  </div>
</template>

<style scoped>
.station {
  display: grid;
  gap: 14px;
}
.caution {
  padding: 10px 12px;
  background: var(--danger-ground);
  border-left: 5px solid var(--out);
  border-radius: 4px;
}
.row {
  display: flex;
  gap: 8px;
  align-items: center;
}
table {
  width: 100%;
  border-collapse: collapse;
}
td {
  padding: 7px 6px 7px 0;
  border-bottom: 1px solid var(--line);
  vertical-align: top;
}
.num {
  text-align: right;
}
.num b {
  font-size: 19px;
}
.words {
  font-weight: 500;
}
.before {
  white-space: nowrap;
}
.before + .before::before {
  content: ' · ';
}
h3 {
  font-size: 17px;
  margin-bottom: 4px;
}
</style>
