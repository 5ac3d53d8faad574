<script setup lang="ts">
import { useQuery } from '@tanstack/vue-query'
import { getSite, keys } from '@/api/calls'
import type { ApiError, Schemas } from '@/api/client'
import ScreenHead from '@/ui/ScreenHead.vue'
import StateMark from '@/ui/StateMark.vue'
import { levelState } from '@/ui/levels'

const props = defineProps<{ id: number }>()
const { data: site, error, isPending, refetch } = useQuery<Schemas['SiteOut'], ApiError>({ queryKey: keys.site(props.id), queryFn: () => getSite(props.id), refetchOnMount: 'always' })
const dayOf = (day: string) => new Date(`${day}T12:00`).toLocaleDateString('en-GB', { day: 'numeric', month: 'short', year: '2-digit' })
</script>

<template>
  <div class="page">
    <ScreenHead :name="site?.name ?? 'Site'" :line="site?.units.length ? `${site.units.length} units side by side` : ''" />
    <main>
      <p v-if="isPending" class="muted">Loading the site …</p>
      <div v-else-if="error" class="trouble" role="alert"><b>{{ error.message }}</b><button class="btn" @click="refetch()">Try again</button></div>
      <template v-else-if="site">
        <p class="muted">{{ site.access }} <a :href="`/api/sites/${site.id}/sheet.pdf`" target="_blank" rel="noopener">Test sheets of all units (PDF)</a></p>
        <section v-if="site.shared.length" class="shared" aria-label="What they share"><h2>What they share</h2><p v-for="text in site.shared" :key="text">{{ text }}</p></section>
        <p v-else class="muted">Nothing lies off on several of them in the same way.</p>
        <div class="across">
          <table>
            <thead>
              <tr><th scope="col">Newest reading</th>
                <th v-for="unit in site.units" :key="unit.label" scope="col">
                  <RouterLink :to="`/units/${unit.id}`">{{ unit.label }}</RouterLink>
                  <span>{{ unit.kind }}</span><span v-if="unit.gas_line">{{ unit.gas_line }}</span>
                  <span v-if="unit.level && unit.day" class="stand"><StateMark :state="levelState(unit.level)" :size="12" />{{ unit.title }}, {{ dayOf(unit.day) }}</span><span v-else>Never visited</span>
                </th></tr>
            </thead>
            <tbody>
              <tr v-for="row in site.rows" :key="`${row.name}${row.stage}`">
                <th scope="row">{{ row.name }}<span v-if="row.stage"> {{ row.stage }} fire</span></th>
                <td v-for="(cell, i) in row.cells" :key="i" :class="cell?.state"><template v-if="cell"><b>{{ cell.text }}</b> <small>{{ cell.unit }}</small><span v-if="cell.side" class="side"><StateMark :state="cell.state === 'out' ? 'out' : 'near'" :size="11" />{{ cell.side }}</span><small class="day">{{ dayOf(cell.day) }}</small></template><span v-else class="muted">–</span></td>
              </tr>
            </tbody>
          </table>
        </div>
      </template>
    </main>
  </div>
</template>

<style scoped>
main { padding: 18px 16px 60px; display: grid; gap: 14px } h2 { font-size: 18px } .shared { display: grid; gap: 6px; padding: 12px 16px; border: 1.5px solid var(--near); border-left-width: 7px; border-radius: 7px; background: var(--plate) } .trouble { color: var(--out); display: flex; gap: 16px; align-items: center }
.across { overflow-x: auto; border: 1.5px solid var(--line); border-radius: 7px; background: var(--plate) } table { border-collapse: collapse; width: 100% } th, td { padding: 9px 14px; text-align: left; vertical-align: top; border-bottom: 1px solid var(--line) } tbody th { font-weight: 500; white-space: nowrap } thead th { font-size: 18px; min-width: 150px } thead th span { display: block; font-size: 14px; font-weight: 400; color: var(--muted) } thead th .stand { display: flex; gap: 6px; align-items: baseline }
th:first-child { position: sticky; left: 0; background: var(--plate); min-width: 130px } td b { font-size: 19px; font-weight: 600 } small { color: var(--muted); font-size: 14px } .day { display: block; font-size: 13px } .side { display: inline-flex; gap: 5px; align-items: center; margin-left: 8px; font-weight: 500 } .out b, .out .side { color: var(--out) } .near b, .near .side { color: var(--near) }
@media (max-width: 700px) { tbody th { white-space: normal } th, td { padding: 8px 10px } th:first-child { min-width: 104px; max-width: 104px } }
</style>
