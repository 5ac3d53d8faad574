<script setup lang="ts">
import { ref, watch } from 'vue'
import CircuitDrawing from '@/features/shop/CircuitDrawing.vue'
import { nodesOf, nodesText, type CircuitDocument } from '@/features/shop/circuitForm'
import PartsForm from '@/features/shop/PartsForm.vue'
import { useCircuitEditor } from '@/features/shop/useCircuitEditor'

const { list, document, check, shipped, state, trouble, kept, open, change, keep } = useCircuitEditor()
const json = ref('')
const unread = ref('')
watch(document, (now) => { json.value = now ? JSON.stringify(now, null, 1) : ''; unread.value = '' })

function copy(): void {
  if (document.value) change({ ...document.value, key: `${document.value.key}_own`, name: `${document.value.name}, our own` })
}
function take(text: string): void {
  try {
    change(JSON.parse(text) as CircuitDocument)
  } catch (error) {
    unread.value = `This is no JSON: ${String((error as Error).message)}`
  }
}
async function openFile(event: Event): Promise<void> {
  const file = (event.target as HTMLInputElement).files?.[0]
  if (file) take(await file.text())
}
function save(): void {
  const link = window.document.createElement('a')
  link.href = URL.createObjectURL(new Blob([json.value], { type: 'application/json' }))
  link.download = `${document.value?.key ?? 'circuit'}.json`
  link.click()
  URL.revokeObjectURL(link.href)
}
</script>

<template>
  <div class="shop">
    <header><RouterLink to="/" class="back" aria-label="Back to the round">‹</RouterLink><b>Shop</b><span>Circuits</span></header>
    <nav aria-label="Circuits">
      <template v-for="own in [true, false]" :key="String(own)">
        <h2 v-if="list?.circuits.some((c) => c.shipped !== own)">{{ own ? 'Our own' : 'Shipped' }}</h2>
        <button v-for="c in list?.circuits.filter((row) => row.shipped !== own)" :key="c.key" :class="{ on: c.key === document?.key }" @click="open(c.key)">{{ c.name }}<small v-if="c.changed_by" class="muted">{{ c.changed_by }}</small></button>
      </template>
      <label class="btn file">Open a JSON file<input type="file" accept=".json,application/json" @change="openFile" /></label>
    </nav>
    <main v-if="!document" class="none"><p>Choose a circuit at the left. A shipped one stays as it is: copy it, then change the copy.</p></main>
    <main v-else>
      <div class="head">
        <label>Name<input :value="document.name" :disabled="shipped" @change="change({ ...document!, name: ($event.target as HTMLInputElement).value })" /></label>
        <label>Key<input :value="document.key" :disabled="shipped" @change="change({ ...document!, key: ($event.target as HTMLInputElement).value })" /></label>
        <button v-if="shipped" class="btn strong" @click="copy">Copy it, to change</button>
        <button v-else class="btn strong" :disabled="!list?.writable || kept || !!check?.problem" @click="keep">{{ kept ? 'Kept' : 'Keep it' }}</button>
        <button class="btn" @click="save">Save as JSON</button>
      </div>
      <p v-if="!list?.writable" class="muted">Looking and trying is free to all; only a supervisor keeps a changed circuit.</p>
      <p v-if="trouble" class="problem" role="alert">{{ trouble }}</p>
      <p v-if="check?.problem" class="problem" role="alert">{{ check.problem.text }}</p>
      <CircuitDrawing v-else-if="check" :check="check" @state="(key) => (state = key)" />
      <h2>Parts</h2>
      <PartsForm :document="document" :kinds="list?.choices.kinds ?? []" :families="list?.choices.families ?? []" :blamed="check?.problem?.element ?? ''" :locked="shipped" @change="change" />
      <h2>Nodes <span class="muted">one a line: key = name</span></h2>
      <textarea :value="nodesText(document.nodes)" :disabled="shipped" rows="8" aria-label="Nodes" @change="change({ ...document!, nodes: nodesOf(($event.target as HTMLTextAreaElement).value) })" />
      <details><summary>All of it as JSON: conditions, quantities, states, control</summary>
        <p v-if="unread" class="problem" role="alert">{{ unread }}</p>
        <textarea v-model="json" :disabled="shipped" rows="24" spellcheck="false" aria-label="The circuit as JSON" class="json" @change="take(json)" />
      </details>
    </main>
  </div>
</template>

<style scoped>
.shop { display: grid; grid-template: 54px 1fr / 300px minmax(0, 1fr); height: 100dvh } header { grid-column: 1 / -1; display: flex; gap: 14px; align-items: center; padding: 0 16px; background: var(--bar); color: var(--bar-ink); font-size: 20px } header span { color: var(--bar-muted); font-size: 16px } .back { color: inherit; text-decoration: none; font-size: 30px; min-width: 44px; text-align: center }
nav { overflow-y: auto; padding: 14px; display: flex; flex-direction: column; gap: 4px; border-right: 1.5px solid var(--line); background: var(--plate) } nav > button { flex: none; min-height: 44px; text-align: left; border: 1.5px solid transparent; border-radius: 6px; background: none; padding: 6px 10px; line-height: 1.2 } nav > button:hover { border-color: var(--line) } nav .on { background: var(--bar); color: var(--bar-ink) } nav small { display: block } h2 { font-size: 17px; margin: 8px 0 2px } h2 span { font-weight: 400; font-size: 14.5px }
.file { display: grid; place-content: center; position: relative; margin-top: 8px } .file input { position: absolute; inset: 0; opacity: 0; cursor: pointer } main { overflow: auto; padding: 16px 20px 40px } main > * + * { margin-top: 12px } .none { display: grid; place-content: center; text-align: center; max-width: 50ch; margin: auto }
.head { display: flex; flex-wrap: wrap; gap: 10px 14px; align-items: end } .head label { display: grid; gap: 2px; font-weight: 500 } .head label:first-child { flex: 1; min-width: 220px } input, textarea { font: inherit; min-height: 44px; padding: 6px 10px; border: 1.5px solid var(--line); border-radius: 6px; background: var(--plate); color: var(--ink) } textarea { width: 100%; resize: vertical } .json { font: 14px/1.35 ui-monospace, monospace } summary { min-height: 44px; display: flex; align-items: center; cursor: pointer; color: var(--in) }
.problem { padding: 9px 14px; border-left: 5px solid var(--out); background: var(--danger-ground) }
@media (max-width: 800px) { .shop { grid-template: 50px auto 1fr / minmax(0, 1fr) } nav { max-height: 30dvh } }
</style>
