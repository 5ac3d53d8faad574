<script setup lang="ts">
import { computed, toRaw } from 'vue'
import { checkModel, getModelForm, keepModel } from '@/api/calls'
import type { Schemas } from '@/api/client'
import DocumentShell from './DocumentShell.vue'
import { emptyModel, withRow } from './modelForm'
import { useDocument } from './useDocument'

type Fields = Schemas['ModelFields']
const { list, document, check, shipped, trouble, kept, why, open, change, copy, keep } = useDocument<Fields, Schemas['ModelCheck']>('model', {
  load: async (key) => { const form = await getModelForm(key); if (!form.fields) throw new Error(form.problem?.text ?? 'This model cannot be read.'); return form.fields },
  check: (fields) => checkModel({ fields, document: null, reason: '' }),
  keep: keepModel,
})
const json = computed(() => (document.value ? JSON.stringify(toRaw(document.value), null, 1) : ''))
const problems = computed(() => check.value?.fields ?? null)
const problemOf = (key: string, stage: string) => problems.value?.plate.find((row) => row.key === key && row.stage === stage)?.problem ?? ''
const value = (event: Event) => (event.target as HTMLInputElement).value
const set = (changes: Partial<Fields>) => change({ ...document.value!, ...changes })
/** A JSON file is a model document; its form comes back from the server. */
async function take(given: unknown): Promise<void> {
  const form = given as Fields
  if (Array.isArray(form.plate)) return change(form)
  const read = await checkModel({ document: given as Record<string, unknown>, fields: null, reason: '' })
  if (read.fields) change(read.fields)
  else trouble.value = read.problem?.text ?? 'This model cannot be read.'
}
</script>

<template>
  <DocumentShell v-model:why="why" :list="list" :document="document" :json="json" :shipped="shipped" :kept="kept" :trouble="trouble" :problem="check?.problem ?? null" none="A model carries plate, manual limits and code chart once; its units refer to it. Choose one at the left." locked="only a supervisor keeps a changed model." @open="open" @change="(d) => change(d as Fields)" @copy="copy" @keep="keep" @take="take">
    <template v-if="document">
      <div class="grid">
        <label>Maker<input :value="document.maker" @change="set({ maker: value($event) })" /></label>
        <label>Kind of unit<select :value="document.kind" @change="set({ kind: value($event) })"><option v-for="k in list?.choices.unit_kinds" :key="k.key" :value="k.key">{{ k.name }}</option></select></label>
        <label>Circuit<select :value="document.circuit" @change="set({ circuit: value($event) })"><option value="">as its kind has it</option><option v-for="c in list?.choices.circuits" :key="c.key" :value="c.key">{{ c.name }}</option></select></label>
        <label>Fuel<select :value="document.fuel" @change="set({ fuel: value($event) })"><option v-for="f in list?.choices.fuels" :key="f.key" :value="f.key">{{ f.name }}</option></select></label>
        <label>Cells, tubes or sections<input type="number" min="1" :value="document.exchanger_cells" @change="set({ exchanger_cells: Number(value($event)) })" /></label>
        <label v-for="(row, i) in document.choices" :key="row.key">{{ row.name }}<select :value="row.value" @change="set({ choices: withRow(document.choices, i, { value: value($event) }) })"><option value="">not on the plate</option><option v-for="o in row.options" :key="o.key" :value="o.key">{{ o.name }}</option></select></label>
      </div>
      <h2>Plate <span class="muted">as it stands on the plate; another unit may be written after the number. Empty: not on the plate, asked for when it is first needed.</span></h2>
      <div class="plate"><label v-for="(row, i) in document.plate" :key="row.key + row.stage" :class="{ wrong: problemOf(row.key, row.stage) }">{{ row.name }}<span class="with"><input :value="row.text" :aria-label="row.name" @change="set({ plate: withRow(document!.plate, i, { text: value($event) }) })" /><i>{{ row.unit }}</i></span><small v-if="problemOf(row.key, row.stage)" class="said">{{ problemOf(row.key, row.stage) }}</small></label></div>
      <h2>Limits of its manual <span class="muted">before house rules and defaults, after the plate</span></h2>
      <div v-for="(row, i) in document.manual" :key="i" class="line">
        <select :value="row.quantity" aria-label="Quantity" @change="set({ manual: withRow(document!.manual, i, { quantity: value($event) }) })"><option v-for="q in list?.choices.quantities" :key="q.key" :value="q.key">{{ q.name }}</option></select>
        <select :value="row.stage" aria-label="Stage" @change="set({ manual: withRow(document!.manual, i, { stage: value($event) }) })"><option value="">every stage</option><option value="only">only stage</option><option value="low">low</option><option value="high">high</option></select>
        <input :value="row.low" placeholder="least" aria-label="Least" @change="set({ manual: withRow(document!.manual, i, { low: value($event) }) })" /><input :value="row.high" placeholder="most" aria-label="Most" @change="set({ manual: withRow(document!.manual, i, { high: value($event) }) })" /><input :value="row.page" placeholder="page" aria-label="Page" @change="set({ manual: withRow(document!.manual, i, { page: value($event) }) })" />
        <button class="out" aria-label="Take this limit out" @click="set({ manual: document!.manual.filter((_, n) => n !== i) })">×</button>
        <small v-if="problems?.manual[i]?.problem" class="said">{{ problems.manual[i]!.problem }}</small>
      </div>
      <button class="btn" @click="set({ manual: [...document!.manual, { ...emptyModel.limit }] })">One more limit</button>
      <h2>Code chart <span class="muted">as the chart on its door says: 2 4, L S S, 3 red 1 amber, E13. Empty: the circuit’s own chart.</span></h2>
      <div v-for="(row, i) in document.codes" :key="`c${i}`" class="line code">
        <input :value="row.pattern" placeholder="code" aria-label="Code" @change="set({ codes: withRow(document!.codes, i, { pattern: value($event) }) })" /><input :value="row.meaning" placeholder="what the chart says" aria-label="Meaning" @change="set({ codes: withRow(document!.codes, i, { meaning: value($event) }) })" />
        <select :value="row.state" aria-label="State of the control" @change="set({ codes: withRow(document!.codes, i, { state: value($event) }) })"><option value="">speaks of something else</option><option v-for="s in check?.states" :key="s.key" :value="s.key">{{ s.name }}</option></select>
        <button class="out" aria-label="Take this code out" @click="set({ codes: document!.codes.filter((_, n) => n !== i) })">×</button>
      </div>
      <button class="btn" @click="set({ codes: [...document!.codes, { ...emptyModel.code }] })">One more code</button>
    </template>
  </DocumentShell>
</template>

<style scoped>
.grid { grid-template-columns: repeat(auto-fit, minmax(160px, 1fr)) } .plate { grid-template-columns: repeat(auto-fill, minmax(200px, 1fr)) } .grid, .plate { display: grid; gap: 10px 14px } label { display: grid; gap: 2px; font-weight: 500; align-content: start } label input, label select { width: 100%; font-weight: 400 } h2 { font-size: 17px } h2 span { font-weight: 400; font-size: 14.5px }
.with { display: grid; grid-template-columns: 1fr auto; align-items: center; gap: 8px } .with i { font-style: normal; color: var(--muted); min-width: 44px; font-weight: 400 } .wrong :deep(input) { border-color: var(--out) } .said { color: var(--out); font-weight: 500 }
.line { display: grid; grid-template-columns: 1.6fr 1fr .8fr .8fr .8fr auto; gap: 6px } .line + .line { margin-top: 6px } .code { grid-template-columns: 130px 1.6fr 1.4fr auto } .line > * { min-width: 0 } .line .said { grid-column: 1 / -1 } .out { min-width: 44px; border: 0; background: none; font-size: 22px; color: var(--muted) }
@media (max-width: 800px) { .line, .code { grid-template-columns: 1fr 1fr } }
</style>
