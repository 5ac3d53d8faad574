<script setup lang="ts">
import { useQuery } from '@tanstack/vue-query'
import { ref } from 'vue'
import { getUnit, keys } from '@/api/calls'
import type { ApiError, Schemas } from '@/api/client'
import PlanVisit from '@/features/record/PlanVisit.vue'
import ShareLinks from '@/features/record/ShareLinks.vue'
import { levelState } from '@/ui/levels'
import ScreenHead from '@/ui/ScreenHead.vue'
import StateMark from '@/ui/StateMark.vue'

const props = defineProps<{ id: number }>()
const FIRST = 5
const all = ref(false)
const { data: unit, error, isPending, refetch } = useQuery<Schemas['UnitRecord'], ApiError>({ queryKey: keys.unit(props.id), queryFn: () => getUnit(props.id), refetchOnMount: 'always' })
const dayOf = (day: string) => new Date(`${day}T12:00`).toLocaleDateString('en-GB', { day: 'numeric', month: 'short', year: '2-digit' })
</script>

<template>
  <div class="page">
    <ScreenHead :name="unit?.name ?? 'Unit'" :line="unit?.line ?? ''" />
    <main>
      <p v-if="isPending" class="muted">Loading the record …</p>
      <div v-else-if="error" class="trouble" role="alert"><b>{{ error.message }}</b><button class="btn" @click="refetch()">Try again</button></div>
      <template v-else-if="unit">
        <p class="muted"><RouterLink :to="`/sites/${unit.site_id}`">{{ unit.site }}</RouterLink>{{ unit.serial ? ` · no. ${unit.serial}` : '' }} · {{ unit.visits.length }} visits</p>
        <PlanVisit :unit="unit.id" :zone="unit.zone" :reasons="unit.reasons" @planned="refetch()" />
        <p v-if="!unit.visits.length">Nobody has written on this unit yet.</p>
        <ol class="time">
          <li v-for="visit in all ? unit.visits : unit.visits.slice(0, FIRST)" :key="visit.id">
            <StateMark :state="visit.closed ? levelState(visit.level) : 'none'" :size="18" />
            <div><RouterLink :to="`/visits/${visit.id}/unit`"><b>{{ dayOf(visit.day) }}</b> {{ visit.reason }}, {{ visit.technician }}</RouterLink><span class="title">{{ visit.title }}{{ visit.closed ? '' : ' (open)' }}</span>
              <p v-if="visit.complaint">“{{ visit.complaint }}”</p><p v-if="visit.words">{{ visit.words }}</p>
              <p v-if="visit.done.length" class="muted">Done: {{ visit.done.join(' · ') }}</p><p v-for="line in visit.advised" :key="line">Advised: <b>{{ line }}</b></p><p v-for="line in visit.refused" :key="line" class="refused">Refused: {{ line }}</p>
              <div v-if="visit.photos.length" class="photos"><a v-for="photo in visit.photos" :key="photo" :href="`/api/photos/${photo}`" target="_blank" rel="noopener"><img :src="`/api/photos/${photo}?small=true`" alt="photo of the visit" loading="lazy" /></a></div></div>
          </li>
        </ol>
        <button v-if="unit.visits.length > FIRST" class="btn more" @click="all = !all">{{ all ? 'Fewer' : `All ${unit.visits.length} visits` }}</button>
        <section v-if="unit.rows.length"><h2>Readings across the visits <span class="muted">as found → as left</span></h2>
          <div class="across"><table>
            <thead><tr><th scope="col">Station</th><th v-for="visit in unit.visits" :key="visit.id" scope="col">{{ dayOf(visit.day) }}</th><th scope="col">Over the years</th></tr></thead>
            <tbody><tr v-for="row in unit.rows" :key="row.name"><th scope="row">{{ row.name }} <small>{{ row.unit }}</small></th><td v-for="(cell, i) in row.cells" :key="i" :class="cell?.state"><span v-if="cell" class="cell"><StateMark v-if="cell.state === 'out' || cell.state === 'near'" :state="cell.state" :size="11" />{{ [cell.found, cell.left].filter(Boolean).join(' → ') }}</span><span v-else class="muted">–</span></td><td class="trend">{{ row.trend }}</td></tr></tbody>
          </table></div>
        </section>
        <ShareLinks :unit="unit.id" :links="unit.links" @changed="refetch()" />
      </template>
    </main>
  </div>
</template>

<style scoped>
main { padding: 18px 16px 60px; display: grid; gap: 14px; grid-template-columns: minmax(0, 1fr) } h2 { font-size: 18px; margin-bottom: 6px } h2 span { font-weight: 400; font-size: 15px; margin-left: 6px } .trouble { color: var(--out); display: flex; gap: 16px; align-items: center } .more { justify-self: start }
.time { list-style: none; margin: 0; padding: 0; border-left: 2.5px solid var(--line) } .time li { display: grid; grid-template-columns: 30px 1fr; padding: 6px 0 10px; margin-left: -10px } .time svg { background: var(--paper); margin-top: 3px } .time a { color: inherit } .title { margin-left: 12px; font-weight: 600 } .time p { margin-top: 1px } .refused { color: var(--near); font-weight: 500 } .photos { display: flex; gap: 8px; margin-top: 6px } .photos img { height: 84px; border-radius: 5px; display: block }
.across { overflow-x: auto; border: 1.5px solid var(--line); border-radius: 7px; background: var(--plate) } table { border-collapse: collapse; width: 100% } th, td { padding: 7px 12px; text-align: left; border-bottom: 1px solid var(--line); white-space: nowrap } th { font-weight: 500 } th:first-child { position: sticky; left: 0; background: var(--plate) } small { color: var(--muted); font-size: 14px } .cell { display: inline-flex; gap: 6px; align-items: center } .out { color: var(--out); font-weight: 600 } .near { color: var(--near); font-weight: 600 } .trend { white-space: normal; min-width: 210px; font-weight: 500 }
@media (max-width: 700px) { th:first-child { white-space: normal; max-width: 118px } th, td { padding: 7px 8px } }
</style>
