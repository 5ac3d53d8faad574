<script setup lang="ts">
import { planVisit } from '@/api/calls'
import type { Schemas } from '@/api/client'
import { useTried } from '@/api/useTried'
import { clockAt, todayAt } from '@/ui/moments'

const props = defineProps<{ zone: string; closing: Schemas['ClosingOut']; visit: number; unit: number; writable: boolean; shut: boolean }>()
const emit = defineEmits<{ begin: [starter: string, station: string]; planned: [] }>()
const todayIso = todayAt(props.zone)
const { trouble, busy, tried } = useTried()
const plan = (row: Schemas['ReturnOut'], day: string) => tried(async () => { await planVisit(props.unit, { reason: row.reason, day, complaint: row.why }); emit('planned') })
const dayOf = (day: string | null) => (day ? new Date(`${day}T12:00`).toLocaleDateString('en-GB', { weekday: 'short', day: 'numeric', month: 'long', year: 'numeric' }) : 'no day yet')
const agreed = (frost: Schemas['FrostOut']): [string, string[], string][] => [['Cold would harm', frost.vulnerable, 'vulnerable '], ['Heat for the time being', frost.temporary_heat, 'tempheat '], ['Drained', frost.drained, 'drained '], ['Refused, in their words', frost.refused, 'refused '], ['Told', frost.told, 'told ']]
</script>

<template>
  <section v-if="shut" class="cold"><h2>While there is no heat</h2><p><b>{{ closing.frost.says }}</b></p>
    <button v-for="[label, rows, starter] in agreed(closing.frost)" :key="label" class="row" :disabled="!writable" @click="$emit('begin', starter, '')"><span class="muted">{{ label }}</span><span>{{ rows.join('; ') || 'not written down' }}</span></button>
  </section>
  <section v-if="closing.parts.length"><h2>Parts</h2>
    <div v-for="part in closing.parts" :key="part.name" class="part"><b>{{ part.name }}</b><span :class="part.state.replace(' ', '-')">{{ part.state }}{{ part.approver ? `, ${part.approver}` : '' }}</span><span class="muted">{{ part.kit.length ? `with: ${part.kit.join(', ')}` : 'nothing more goes with it' }}</span><span class="muted">{{ part.arrives ? `here on ${dayOf(part.arrives)}` : 'arrival not known' }}</span><span v-if="part.rule" class="muted wide">{{ part.rule }}</span>
      <div v-if="writable" class="pair"><button class="btn" @click="$emit('begin', `approved owner ${part.name.toLowerCase()}`, '')">Approved</button><button class="btn" @click="$emit('begin', `declined owner ${part.name.toLowerCase()}`, '')">Declined</button><button class="btn" @click="$emit('begin', `arrives ${part.name.toLowerCase()} `, '')">Arrives …</button></div></div>
  </section>
  <section v-if="closing.returns.length"><h2>Visits to come</h2><p v-for="row in closing.returns" :key="row.reason" class="return"><span><b>{{ dayOf(row.day) }}</b> · {{ row.name }} <span class="muted">{{ row.why }}{{ row.said ? '' : ' (worked out)' }}</span></span><span v-if="row.planned" class="approved">on the round</span><button v-else-if="row.day && row.day >= todayIso" class="btn" :disabled="busy" @click="plan(row, row.day)">Put on the round</button></p><p v-if="trouble" class="trouble" role="alert">{{ trouble }}</p><a v-if="closing.returns.some((r) => r.day)" class="btn" :href="`/api/visits/${visit}/plan.ics`">Into a calendar</a></section>
  <section v-if="closing.remarks.length"><h2>How the work was done <span class="muted">changes no standing</span></h2><p v-for="line in closing.remarks" :key="line">{{ line }}</p></section>
  <section v-if="closing.ledger.length"><h2>The ledger</h2><p v-for="row in closing.ledger" :key="row.since + row.text" :class="{ open: !row.until }">{{ row.text }} <span class="muted">{{ clockAt(row.since, zone) }} {{ row.by }}{{ row.found ? ', found so' : '' }}{{ row.until ? `, made good ${clockAt(row.until, zone)} ${row.until_by}` : ', still so' }}</span></p></section>
</template>

<style scoped>
section { background: var(--plate); border: 1.5px solid var(--line); border-radius: 8px; padding: 12px 16px; display: grid; gap: 7px; justify-items: start } h2 { font-size: 18px } h2 span { font-weight: 400; font-size: 15px; margin-left: 6px } .cold { border-left: 7px solid var(--air) }
.row { display: grid; grid-template-columns: 170px 1fr; gap: 10px; width: 100%; min-height: 44px; align-items: center; border: 0; border-top: 1px dashed var(--line); background: none; text-align: left; padding: 4px 0 } .part { display: grid; grid-template-columns: 1fr auto; gap: 2px 14px; width: 100%; border-top: 1px dashed var(--line); padding-top: 7px } .wide, .pair { grid-column: 1 / -1 } .pair { display: flex; gap: 8px; flex-wrap: wrap; margin-top: 4px } .approved { color: var(--in); font-weight: 600 } .declined { color: var(--out); font-weight: 600 } .open, .trouble { color: var(--out); font-weight: 500 } .return { display: flex; flex-wrap: wrap; gap: 6px 14px; align-items: center; justify-content: space-between; width: 100% }
@media (max-width: 800px) { .row { grid-template-columns: 1fr } .part { grid-template-columns: 1fr } }
</style>
