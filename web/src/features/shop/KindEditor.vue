<script setup lang="ts">
import { computed, ref } from 'vue'
import { checkKind, getDocument, keepDocument } from '@/api/calls'
import type { Schemas } from '@/api/client'
import DocumentShell from './DocumentShell.vue'
import { withoutStation, withProof, withStation, withStationField, withStationUp, type KindDocument } from './kindForm'
import { useDocument } from './useDocument'

const { list, document, check, shipped, trouble, kept, why, open, change, copy, keep } = useDocument<KindDocument, Schemas['KindCheck']>('kind', {
  load: async (key) => (await getDocument('kind', key)) as unknown as KindDocument,
  check: (document) => checkKind(document),
  keep: (document, why) => keepDocument('kind', document, why),
})
const reason = ref('every')
const two = ref(false)
const json = computed(() => (document.value ? JSON.stringify(document.value, null, 1) : ''))
const drawn = computed(() => (two.value ? check.value?.two_stages : check.value?.one_stage) ?? [])
const shown = computed(() => new Set(document.value?.must_show[reason.value] ?? []))
const blamed = computed(() => check.value?.problem?.element ?? '')
const value = (event: Event) => (event.target as HTMLInputElement).value
</script>

<template>
  <DocumentShell v-model:why="why" :list="list" :document="document" :json="json" :shipped="shipped" :kept="kept" :trouble="trouble" :problem="check?.problem ?? null" none="Choose a kind of unit at the left: its stations, paths, ties, and what a visit must show. A shipped one stays as it is: copy it, then change the copy." locked="only a supervisor keeps a changed kind." @open="open" @change="(d) => change(d as KindDocument)" @copy="copy" @keep="keep" @take="(d) => change(d as KindDocument)">
    <section v-if="drawn.length">
      <p class="row"><span class="muted">Drawn for a unit with</span><button v-for="b in [false, true]" :key="String(b)" class="chip" :class="{ on: two === b }" @click="two = b">{{ b ? 'two stages' : 'one stage' }}</button></p>
      <div class="paths"><div v-for="p in drawn" :key="p.key" class="path" :style="{ '--path': `var(--${p.key})` }"><b>{{ p.name }} {{ p.direction === 'up' ? '↑' : '↓' }}</b><span v-for="(s, i) in p.stations" :key="i">{{ s }}</span></div></div>
    </section>
    <template v-if="document">
      <section v-for="(path, p) in document.paths" :key="path.key">
        <h2>{{ path.name }} <span class="muted">stations from top to bottom</span></h2>
        <div class="scroll"><table>
          <thead><tr><th>Key</th><th>Name</th><th>Reads</th><th>Stages</th><th>Caution</th><th /></tr></thead>
          <tbody>
            <tr v-for="(row, i) in path.stations" :key="i" :class="{ blamed: row.key === blamed }">
              <td><input :value="row.key" :disabled="shipped" style="width: 150px" :aria-label="`Key of ${row.name}`" @change="change(withStationField(document!, p, i, 'key', value($event)))" /></td>
              <td><input :value="row.name" :disabled="shipped" style="width: 170px" :aria-label="`Name of ${row.name}`" @change="change(withStationField(document!, p, i, 'name', value($event)))" /></td>
              <td><select :value="row.quantity ?? ''" :disabled="shipped" style="width: 180px" :aria-label="`Quantity of ${row.name}`" @change="change(withStationField(document!, p, i, 'quantity', value($event)))"><option value="">a look only</option><option v-for="q in list?.choices.quantities" :key="q.key" :value="q.key">{{ q.name }}</option></select></td>
              <td><select :value="row.stages ?? 'none'" :disabled="shipped" :aria-label="`Stages of ${row.name}`" @change="change(withStationField(document!, p, i, 'stages', value($event)))"><option value="none">none</option><option value="each">each</option><option value="top">top</option></select></td>
              <td><input :value="row.caution ?? ''" :disabled="shipped" style="width: 260px" :aria-label="`Caution at ${row.name}`" @change="change(withStationField(document!, p, i, 'caution', value($event)))" /></td>
              <td v-if="!shipped" class="moves"><button :aria-label="`Move ${row.name} up`" @click="change(withStationUp(document!, p, i))">↑</button><button :aria-label="`Take ${row.name} out`" @click="change(withoutStation(document!, p, i))">×</button></td>
            </tr>
          </tbody>
        </table></div>
        <button v-if="!shipped" class="btn" @click="change(withStation(document!, p))">One more station</button>
      </section>
      <section>
        <h2>What a visit must show</h2>
        <p class="row"><button v-for="r in list?.choices.reasons" :key="r.key" class="chip" :class="{ on: reason === r.key }" @click="reason = r.key">{{ r.name }} <small>{{ document.must_show[r.key]?.length ?? 0 }}</small></button></p>
        <p class="row"><button v-for="proof in list?.choices.proofs" :key="proof.key" class="chip proof" :class="{ asked: shown.has(proof.key) }" :aria-pressed="shown.has(proof.key)" :disabled="shipped" @click="change(withProof(document!, reason, proof.key))">{{ shown.has(proof.key) ? '●' : '○' }} {{ proof.name }}</button></p>
      </section>
    </template>
  </DocumentShell>
</template>

<style scoped>
section { display: grid; gap: 8px } h2 { font-size: 17px } h2 span { font-weight: 400; font-size: 14.5px } .row { display: flex; flex-wrap: wrap; gap: 6px; align-items: center } .chip { min-height: 40px; padding: 0 11px; border: 1.5px solid var(--line); border-radius: 6px; background: var(--plate); font-size: 15px } .on { background: var(--bar); color: var(--bar-ink) } .asked { border-color: var(--in); color: var(--in); font-weight: 600 }
.paths { display: grid; grid-template-columns: repeat(auto-fit, minmax(150px, 1fr)); gap: 12px } .path { border-left: 6px solid var(--path); padding-left: 10px; display: grid; gap: 4px; align-content: start } .path b { color: var(--path) } .path span { background: var(--plate); border: 1.5px solid var(--line); border-radius: 6px; padding: 4px 8px; line-height: 1.2 }
.scroll { overflow-x: auto } table { border-collapse: collapse } th { text-align: left; padding: 2px 6px } td { padding: 2px 3px } .blamed input { border-color: var(--out); border-width: 2px } .moves { white-space: nowrap } .moves button { min-width: 40px; min-height: 40px; border: 0; background: none; font-size: 20px; color: var(--muted) } section > .btn { justify-self: start }
</style>
