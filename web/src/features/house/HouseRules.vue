<script setup lang="ts">
import { useQuery, useQueryClient } from '@tanstack/vue-query'
import { computed, ref, watch } from 'vue'
import { getHouse, keepHouse, keys, tryHouse } from '@/api/calls'
import type { ApiError, Schemas } from '@/api/client'
import { useTried } from '@/api/useTried'
import { levelState } from '@/ui/levels'
import StateMark from '@/ui/StateMark.vue'
import { changesOf, draftOf, type Draft } from './draft'

const TRY_AFTER_MS = 500
const cache = useQueryClient()
const { data: house, error } = useQuery<Schemas['HouseRulesOut'], ApiError>({ queryKey: keys.house, queryFn: getHouse })
const draft = ref<Draft>({ name: '', answers: {}, limits: {} })
const run = ref<Schemas['DryRunOut'] | null>(null)
const kept = ref(false)
const why = ref('')
const { trouble, busy, tried } = useTried()
watch(house, (now) => { if (now) draft.value = draftOf(now) }, { immediate: true })
const changes = computed(() => (house.value ? changesOf(house.value, draft.value) : {}))
const count = computed(() => Object.keys(changes.value).filter((key) => key !== 'name').length)
const rules = computed(() => ({ name: draft.value.name, ...draft.value.answers, ...draft.value.limits }))
let waiting = 0
watch(rules, () => {
  window.clearTimeout(waiting)
  kept.value = false
  if (!count.value) { run.value = null; return }
  waiting = window.setTimeout(() => void tried(async () => { run.value = await tryHouse(rules.value) }), TRY_AFTER_MS)
})
const keep = () => tried(async () => {
  cache.setQueryData(keys.house, await keepHouse(rules.value, why.value))
  why.value = ''
  run.value = null
  kept.value = true
})
function take(preset: Schemas['PresetOut']): void {
  const given = preset.rules as Record<string, string | number>
  draft.value = { name: preset.name, answers: Object.fromEntries(Object.keys(draft.value.answers).map((key) => [key, String(given[key])])), limits: Object.fromEntries(Object.keys(draft.value.limits).map((key) => [key, Number(given[key])])) }
}
const numberOf = (event: Event) => Number((event.target as HTMLInputElement).value)
</script>

<template>
  <p v-if="error" class="none" role="alert">{{ error.message }}</p>
  <p v-else-if="!house" class="none muted">Loading the house rules …</p>
  <div v-else class="house">
    <div class="rules">
      <div class="top"><label>Name<input v-model="draft.name" maxlength="60" :disabled="!house.writable" /></label><span class="muted">Begin from</span><button v-for="preset in house.presets" :key="preset.name" class="btn" @click="take(preset)">{{ preset.name }}</button></div>
      <p v-if="!house.writable" class="muted">Only a supervisor sets the house rules; anyone may try what they would change.</p>
      <fieldset v-for="question in house.questions" :key="question.key">
        <legend>{{ question.name }} <small v-if="run?.by_rule[question.key] !== undefined">alone changes {{ run.by_rule[question.key] }} of {{ run.looked_at }}</small></legend>
        <label v-for="answer in question.answers" :key="answer.key" :class="{ on: draft.answers[question.key] === answer.key }"><input v-model="draft.answers[question.key]" type="radio" :name="question.key" :value="answer.key" /><span>{{ answer.reason }}</span><small v-if="question.chosen === answer.key" class="muted">today</small></label>
      </fieldset>
      <fieldset><legend>House limits <small class="muted">plate and manual go before them</small></legend>
        <label v-for="limit in house.limits" :key="limit.key" class="limit"><span>{{ limit.name }}</span><input type="number" :min="limit.least" :max="limit.most" :step="limit.most > 1 ? 1 : 0.01" :value="draft.limits[limit.key]" @change="draft = { ...draft, limits: { ...draft.limits, [limit.key]: numberOf($event) } }" /><small class="muted">{{ limit.unit }} {{ limit.least }} to {{ limit.most }}</small></label>
      </fieldset>
    </div>
    <aside>
      <h2>{{ count ? `${count} ${count === 1 ? 'answer differs' : 'answers differ'} from today` : 'As it is today' }}</h2>
      <p v-if="trouble" class="trouble" role="alert">{{ trouble }}</p>
      <p v-if="kept" role="status">Kept. Visits that begin from now on are judged by them; those that have begun keep theirs.</p>
      <label v-if="house.writable && count" class="why">Why they are changed<input v-model="why" maxlength="300" placeholder="kept with this version" /></label>
      <button v-if="house.writable" class="btn strong" :disabled="busy || !Object.keys(changes).length" @click="keep">Keep these rules</button>
      <button v-if="count" class="btn" @click="draft = draftOf(house)">Back to today’s</button>
      <template v-if="run"><h3>{{ run.changed.length }} of the last {{ run.looked_at }} visits would differ</h3>
        <details v-for="row in run.changed" :key="row.id"><summary><StateMark :state="levelState(row.before)" :size="13" />→<StateMark :state="levelState(row.after)" :size="13" /><span>{{ row.unit }}, {{ row.day }}</span></summary><p v-if="row.before !== row.after"><b>{{ row.before_title }} → {{ row.after_title }}</b></p><p v-for="line in row.says" :key="line">{{ line }}</p><RouterLink :to="`/visits/${row.id}/unit`">Open it</RouterLink></details></template>
      <p v-else class="muted">Change an answer: it is tried at once on the last visits, and nothing is kept until you say so.</p>
    </aside>
  </div>
</template>

<style scoped>
.none { padding: 30px 20px } .house { grid-column: 1 / -1; display: grid; grid-template-columns: minmax(0, 1fr) 400px; min-height: 0 } .rules { overflow-y: auto; padding: 16px 20px 40px; display: grid; gap: 14px } .top { display: flex; flex-wrap: wrap; gap: 10px; align-items: end } .top label { display: grid; gap: 3px } input:not([type='radio']) { min-height: 44px; padding: 0 10px; border: 1.5px solid var(--line); border-radius: 6px; background: var(--plate); color: var(--ink); font: inherit }
fieldset { border: 1.5px solid var(--line); border-radius: 8px; background: var(--plate); padding: 6px 14px 8px; margin: 0; display: grid } legend { font-weight: 600; font-size: 17px; padding: 0 6px; margin-left: -6px } legend small { font-weight: 500; color: var(--near); font-size: 15px; margin-left: 6px } fieldset label { display: grid; grid-template-columns: 24px 1fr auto; gap: 8px; align-items: center; min-height: 44px } fieldset label + label { border-top: 1px dashed var(--line) } .on span { font-weight: 600 } input[type='radio'] { width: 20px; height: 20px; accent-color: var(--in) } .limit { grid-template-columns: 1fr 110px 130px !important }
aside { overflow-y: auto; padding: 16px; border-left: 1.5px solid var(--line); background: var(--plate); display: grid; gap: 10px; align-content: start } h2 { font-size: 19px } h3 { font-size: 16px } .why { display: grid; gap: 3px } .trouble { color: var(--out); font-weight: 500 } summary { display: flex; gap: 7px; align-items: center; min-height: 44px; cursor: pointer; border-top: 1px solid var(--line) } details p { margin: 0 0 4px 18px } details a { margin-left: 18px }
@media (max-width: 800px) { .house { grid-template-columns: minmax(0, 1fr); overflow-y: auto } .rules, aside { overflow: visible; padding: 12px } aside { border-left: 0; border-top: 1.5px solid var(--line); position: sticky; bottom: 0; max-height: 45vh; overflow-y: auto } .limit { grid-template-columns: 1fr 96px !important } .limit small { grid-column: 1 / -1 } }
</style>
