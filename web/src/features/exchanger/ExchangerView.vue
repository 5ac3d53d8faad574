<script setup lang="ts">
import { keepPreviousData, useQuery } from '@tanstack/vue-query'
import { computed, ref } from 'vue'
import { getExchanger, keys } from '@/api/calls'
import type { ApiError, Schemas } from '@/api/client'
import PhotoStrip from '@/features/photos/PhotoStrip.vue'
import { levelState } from '@/ui/levels'
import StateMark from '@/ui/StateMark.vue'
import EvidencePanel from './EvidencePanel.vue'
import ExchangerDrawing from './ExchangerDrawing.vue'
import { lineFor, type Spot } from './line'

const props = defineProps<{ page: Schemas['VisitPage'] }>()
const emit = defineEmits<{ begin: [starter: string, station?: string]; write: [line: string]; page: [page: Schemas['VisitPage']] }>()
const { data, error } = useQuery<Schemas['ExchangerOut'], ApiError>({
  queryKey: computed(() => keys.exchanger(props.page.id, props.page.version)),
  queryFn: () => getExchanger(props.page.id),
  placeholderData: keepPreviousData,
  retry: false,
})
const KEY = { in: 'seen, nothing found', near: 'a sign', out: 'holds or ends its running', none: 'not seen yet' }
const method = ref('mirror')
const size = ref('')
const sure = ref('')
const spot = ref<Spot | null>(null)

function place(starter: string): void {
  if (!spot.value) return
  emit('write', lineFor(starter, spot.value, { size: size.value, method: method.value, sure: sure.value }))
  spot.value = null
}
</script>

<template>
  <p v-if="error" class="none" role="alert">{{ error.message }}</p>
  <p v-else-if="!data" class="none muted">Loading the exchanger …</p>
  <div v-else class="exchanger">
    <section class="draw">
      <h2>{{ data.name }} exchanger <span class="muted">touch where it is, then what it is</span></h2>
      <div class="how">
        <p><span class="muted">Looked at by</span><button v-for="m in data.methods" :key="m" class="chip" :class="{ on: m === method }" :aria-pressed="m === method" @click="method = m">{{ m }}</button></p>
        <p><span class="muted">Size</span><button v-for="s in data.sizes" :key="s" class="chip" :class="{ on: s === size }" :aria-pressed="s === size" @click="size = s">{{ s || 'none' }}</button></p>
        <p><span class="muted">How sure</span><button v-for="s in ['', ...data.surenesses]" :key="s" class="chip" :class="{ on: s === sure }" :aria-pressed="s === sure" @click="sure = s">{{ s || 'not said' }}</button></p>
      </div>
      <ExchangerDrawing :exchanger="data" :chosen="spot" :writable="page.writable" @spot="spot = $event" />
      <div v-if="spot" class="kinds" role="group" :aria-label="`What is at ${spot.part}, ${spot.zone}?`">
        <b>{{ spot.part }}, {{ spot.zone }}</b>
        <button v-for="f in data.findings" :key="f.starter" class="btn kind" @click="place(f.starter)"><StateMark :state="levelState(f.level)" :size="13" />{{ f.name }}</button>
        <button class="btn" @click="spot = null">Nothing</button>
      </div>
      <p v-else class="muted key"><span v-for="(said, state) in KEY" :key="state"><StateMark :state="state" :size="13" />{{ said }}</span></p>
      <ul v-if="data.placed.length" class="placed"><li v-for="row in data.placed" :key="row.entry_id"><StateMark :state="levelState(row.level)" :size="14" /><b>{{ row.text }}</b><span>{{ [row.place, row.detail].filter(Boolean).join(' · ') || 'place not written' }}</span></li></ul>
    </section>
    <div class="col">
      <section>
        <h2>Seen so far</h2>
        <p v-if="!data.coverage.length" class="muted">Nothing was looked at yet, or nobody wrote it.</p>
        <p v-for="row in data.coverage" :key="row.says" class="cover"><span>{{ row.says }}</span><i><i :style="{ width: `${row.finds_pct}%` }" /></i><span class="muted">finds about {{ row.finds_pct }} % of real breaches</span></p>
        <button class="btn" :disabled="!page.writable" @click="emit('write', `${data.whole}${method}`)">All seen by {{ method }}, nothing found</button>
        <button class="btn" :disabled="!page.writable" @click="emit('begin', 'exchanger ok ', 'exchanger')">Only some of it</button>
      </section>
      <EvidencePanel :evidence="data.evidence" :writable="page.writable" @begin="(line) => emit('begin', line, 'exchanger')" />
    </div>
    <PhotoStrip class="wide" :page="page" station="exchanger" @page="emit('page', $event)" />
  </div>
</template>

<style scoped>
.none { padding: 30px 20px } .exchanger { display: grid; grid-template-columns: minmax(0, 7fr) minmax(280px, 5fr); gap: 16px; padding: 14px 20px 30px; align-items: start } .wide { grid-column: 1 / -1 } .col { display: grid; gap: 16px }
section { background: var(--plate); border: 1.5px solid var(--line); border-radius: 8px; padding: 12px 16px; display: grid; gap: 9px } h2 { font-size: 18px } h2 span { font-weight: 400; font-size: 15px; margin-left: 6px }
.how { display: grid; gap: 6px } .how p { display: flex; flex-wrap: wrap; gap: 5px; align-items: center } .how .muted { font-size: 15px; width: 78px } .chip { min-height: 44px; min-width: 44px; padding: 0 7px; border: 1.5px solid var(--line); border-radius: 6px; background: none } .on { border-color: var(--in); background: var(--steady); font-weight: 600 }
.kinds { position: sticky; bottom: 8px; z-index: 2; background: var(--plate); box-shadow: 0 6px 24px rgb(0 0 0 / 25%); display: flex; flex-wrap: wrap; gap: 7px; align-items: center; padding: 10px; border: 2px solid var(--in); border-radius: 8px } .kinds b { flex-basis: 100%; font-size: 18px } .kind { display: inline-flex; gap: 8px; align-items: center; padding: 0 12px } .key { display: flex; flex-wrap: wrap; gap: 4px 14px; font-size: 15px } .key span { display: inline-flex; gap: 6px; align-items: center; white-space: nowrap }
.placed { list-style: none; margin: 0; padding: 0 } .placed li { display: flex; flex-wrap: wrap; gap: 4px 9px; align-items: center; min-height: 36px; border-top: 1px solid var(--line) }
.cover { display: grid; gap: 3px } .cover > i { height: 7px; border-radius: 4px; background: var(--track) } .cover i i { display: block; height: 100%; border-radius: 4px; background: var(--in) } .cover .muted { font-size: 15px }
@media (max-width: 800px) { .exchanger { grid-template-columns: minmax(0, 1fr); padding: 10px } .wide { grid-column: auto } }
</style>
