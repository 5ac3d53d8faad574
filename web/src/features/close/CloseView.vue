<script setup lang="ts">
import { keepPreviousData, useQuery } from '@tanstack/vue-query'
import { NInput } from 'naive-ui'
import { computed, ref } from 'vue'
import { closeVisit, getClosing, getMe, keys, sendBundle } from '@/api/calls'
import { ApiError, type Schemas } from '@/api/client'
import PhotoStrip from '@/features/photos/PhotoStrip.vue'
import { notReached } from '@/outbox/notReached'
import { levelState } from '@/ui/levels'
import { momentAt } from '@/ui/moments'
import StateMark from '@/ui/StateMark.vue'
import AmendPanel from './AmendPanel.vue'
import ClosingSteps from './ClosingSteps.vue'
import PlanPanel from './PlanPanel.vue'
import SignaturePad from './SignaturePad.vue'

const props = defineProps<{ page: Schemas['VisitPage']; waiting: number }>()
const emit = defineEmits<{ page: [page: Schemas['VisitPage']]; begin: [starter: string, station: string] }>()
const { data: me } = useQuery<Schemas['Me'], ApiError>({ queryKey: keys.me, queryFn: getMe })
type Way = NonNullable<Schemas['CloseIn']['left']>
const words = ref(sessionStorage.getItem(`words-${props.page.id}`) ?? '')
const signature = ref<number[][][]>([])
const name = ref('')
const refused = ref<string[]>([])
const busy = ref(false)
const taken = ref('')
const signedBy = computed(() => name.value.trim() || (signature.value.length ? (me.value?.name ?? '') : ''))
const { data: closing, error, refetch } = useQuery<Schemas['ClosingOut'], ApiError>({
  queryKey: computed(() => keys.closing(props.page.id, props.page.version)),
  queryFn: () => getClosing(props.page.id),
  placeholderData: keepPreviousData,
})
const chosen = ref<Way | null>(null)
const way = computed(() => chosen.value ?? props.page.standing.leaving)
const shut = computed(() => props.page.standing.level >= 4)
const PAPERS = [['report.pdf', 'Whole report'], ['customer.pdf', 'For the customer'], ['tag.pdf', 'Tag, A6'], ['sheet.pdf', 'Test sheet'], ['quote.pdf', 'Parts and approvals'], ['bundle.json', 'Visit bundle (JSON)'], ['readings.csv', 'Readings (CSV)']]

const titleOf = (file: string) => PAPERS.find(([known]) => known === file)?.[1] ?? file
const digests = computed(() => props.page.close.papers.map((paper) => `${titleOf(paper.file)} ${paper.sha256.slice(0, 12)}…`).join(' · '))

function keepWords(): void {
  sessionStorage.setItem(`words-${props.page.id}`, words.value)
}
async function close(): Promise<void> {
  busy.value = true
  refused.value = []
  try {
    emit('page', await closeVisit(props.page.id, { seen_version: props.page.version, customer_words: words.value, signed_by: signedBy.value, signature: signature.value, left: chosen.value }))
  } catch (error) {
    refused.value = error instanceof ApiError ? (error.details.length ? error.details : [error.message]) : [String(error)]
  } finally {
    busy.value = false
  }
}
async function takeBundle(event: Event): Promise<void> {
  const input = event.target as HTMLInputElement
  const file = input.files?.[0]
  input.value = ''
  if (!file) return
  try {
    const before = props.page.tape.length
    const page = await sendBundle(props.page.id, file, () => undefined)
    taken.value = `${page.tape.length - before} new entries were taken in from ${file.name}.`
    emit('page', page)
  } catch (error) {
    taken.value = error instanceof ApiError ? error.message : String(error)
  }
}
</script>

<template>
  <div class="close">
    <section v-if="page.close.closed_at" class="done"><h2><StateMark :state="levelState(page.standing.level)" :size="20" />Closed: {{ page.standing.title }}</h2><p>Signed {{ page.close.signed_by }}, {{ momentAt(page.close.closed_at, page.zone) }}. The tape takes no more entries.</p><p v-if="page.close.customer_words" class="quote">{{ page.close.customer_words }}</p></section>
    <p v-if="error" class="refused wide" role="alert">{{ error.message }}</p>
    <p v-else-if="!closing" class="muted wide">Looking what is still to do …</p>
    <template v-else>
      <div v-if="!page.close.closed_at" class="col"><ClosingSteps :steps="closing.steps" :writable="page.writable" @begin="(line, where) => emit('begin', line, where)" /></div>
      <div class="col" :class="{ wide: page.close.closed_at }"><PlanPanel :zone="page.zone" :closing="closing" :visit="page.id" :unit="page.unit_id" @planned="refetch()" :writable="page.writable" :shut="shut" @begin="(line, where) => emit('begin', line, where)" /></div>
    </template>
    <section v-if="page.close.changes.length" class="wide"><h2>What changed, and what lay between</h2><p v-for="line in page.close.changes" :key="line">{{ line }}</p></section>
    <form v-if="page.writable" class="wide sign" @submit.prevent="close">
      <h2>Words to the customer</h2>
      <NInput v-model:value="words" type="textarea" :autosize="{ minRows: 3 }" placeholder="In plain words: what was wrong, what was done, what you advise." @update:value="keepWords" />
      <h2>How is it left?</h2>
      <div class="ways" role="radiogroup" aria-label="How is it left?"><label v-for="row in page.close.ways" :key="row.key" :class="{ on: way === row.key }"><input type="radio" name="left" class="sr" :value="row.key" :checked="way === row.key" @change="chosen = row.key as Way" />{{ row.name }}</label></div>
      <h2>Sign</h2>
      <div class="two"><label>Your name<NInput v-model:value="name" :placeholder="me?.name" :input-props="{ name: 'signed-by' }" /></label><SignaturePad v-model="signature" /></div>
      <ul v-if="closing?.obstacles.length && !refused.length" class="held"><li v-for="line in closing.obstacles" :key="line">{{ line }}</li></ul>
      <ul v-if="refused.length" class="refused" role="alert"><li v-for="line in refused" :key="line">{{ line }}</li></ul>
      <p v-if="waiting" class="refused">{{ notReached(waiting) }}: closing waits for {{ waiting === 1 ? 'it' : 'them' }}.</p>
      <button class="btn strong big" :disabled="busy || !!waiting">Close the visit: {{ (chosen ? page.close.ways.find((row) => row.key === chosen)?.name ?? '' : page.standing.title).toLowerCase() }}</button>
    </form>
    <section class="wide files"><h2>Papers <span v-if="closing?.words" class="muted">on them: {{ closing.words }}</span></h2>
      <a v-for="[file, title] in PAPERS" :key="file" class="btn" :href="`/api/visits/${page.id}/${file}`" target="_blank" rel="noopener">{{ title }}</a><RouterLink class="btn" :to="`/units/${page.unit_id}`">Record of the unit, customer’s link</RouterLink>
      <label v-if="page.writable" class="btn">Take in a bundle<input type="file" accept=".json,application/json" class="sr" @change="takeBundle" /></label>
      <p v-if="taken" role="status" class="taken">{{ taken }}</p>
      <p v-if="page.close.papers.length" class="kept muted">Papers are kept as they were printed at the close, each with its SHA-256: {{ digests }}</p>
    </section>
    <AmendPanel v-if="page.close.closed_at" class="wide" :page="page" :may-write="me?.role !== 'office'" @page="emit('page', $event)" />
    <PhotoStrip class="wide" :page="page" station="" @page="emit('page', $event)" />
    <section v-if="page.earlier.length" class="wide"><h2>Before this visit</h2>
      <article v-for="visit in page.earlier" :key="visit.id" class="before"><h3><StateMark :state="levelState(visit.level)" />{{ visit.day }} · {{ visit.reason }} · {{ visit.technician }}</h3><p>{{ visit.words }}</p><p v-for="line in visit.advice" :key="line"><b>{{ line }}</b></p><p class="muted">{{ visit.readings.join(' · ') }}</p></article>
    </section>
  </div>
</template>

<style scoped>
.close { flex: 1 0 auto; display: grid; grid-template-columns: 1fr 1fr; gap: 18px 28px; padding: 16px 20px 30px; align-content: start } .wide, .done { grid-column: 1 / -1 } h2 { display: flex; gap: 10px; align-items: center; font-size: 18px; font-weight: 600; margin-bottom: 4px } h3 { display: flex; gap: 8px; align-items: center; font-size: 16px; font-weight: 600 }
.col { display: grid; gap: 12px; align-content: start }
.sign { display: grid; gap: 8px } .ways { display: flex; flex-wrap: wrap; gap: 10px } .ways label { display: inline-flex; align-items: center; min-height: 48px; padding: 0 16px; border: 1.5px solid var(--line); border-radius: 7px; cursor: pointer; font-weight: 500 } .ways .on { border-color: var(--accent); box-shadow: inset 0 0 0 1.5px var(--accent) } .ways label:focus-within { outline: 3px solid var(--in) } .two { display: grid; grid-template-columns: 1fr 2fr; gap: 16px } .two label { display: grid; gap: 4px; align-content: start } .big { min-height: 54px; font-size: 18px; justify-self: start; padding: 0 28px }
.held { margin: 0; padding-left: 20px; font-weight: 500 } .refused { color: var(--out); font-weight: 600; margin: 0; padding-left: 20px } .files { display: flex; flex-wrap: wrap; gap: 10px; align-items: center } .files h2 { flex-basis: 100%; margin: 0 } .files label { display: inline-flex; align-items: center; cursor: pointer } .taken { flex-basis: 100%; font-weight: 500 } .kept { flex-basis: 100% }
.quote { margin-top: 8px; padding-left: 12px; border-left: 4px solid var(--line) } .before { padding: 8px 0; border-bottom: 1px dashed var(--line) }
@media (max-width: 800px) { .close { grid-template-columns: 1fr; padding: 12px } .two { grid-template-columns: 1fr } .big { width: 100% } }
</style>
