<script setup lang="ts">
import { useQuery } from '@tanstack/vue-query'
import { NInput } from 'naive-ui'
import { computed, ref } from 'vue'
import { closeVisit, getMe, keys, sendBundle } from '@/api/calls'
import { ApiError, type Schemas } from '@/api/client'
import { levelState } from '@/ui/levels'
import StateMark from '@/ui/StateMark.vue'
import SignaturePad from './SignaturePad.vue'

const props = defineProps<{ page: Schemas['VisitPage']; waiting: number }>()
const emit = defineEmits<{ page: [page: Schemas['VisitPage']]; begin: [starter: string, station: string] }>()
const { data: me } = useQuery<Schemas['Me'], ApiError>({ queryKey: keys.me, queryFn: getMe })
const words = ref(sessionStorage.getItem(`words-${props.page.id}`) ?? '')
const signature = ref<number[][][]>([])
const name = ref('')
const refused = ref<string[]>([])
const busy = ref(false)
const taken = ref('')
const signedBy = computed(() => name.value.trim() || (signature.value.length ? (me.value?.name ?? '') : ''))
const files = computed(() => ['report.pdf', 'bundle.json', 'readings.csv'].map((file) => `/api/visits/${props.page.id}/${file}`))
const lists = computed(() => [
  { title: 'Still to show', state: 'none', lines: props.page.standing.missing.map((m) => ({ text: m.after_work ? `${m.text} (${m.after_work.toLowerCase()})` : m.text, starter: m.starter, station: m.station })), good: 'Everything that this visit must show is shown.' },
  { title: 'Left abnormal', state: 'out', lines: props.page.jumpers.map((j) => ({ text: j.text, starter: j.put_back, station: j.device })), good: 'No jumper, lifted lead, tee or open tap is left.' },
  { title: 'Put back', state: 'near', lines: props.page.close.put_backs.map((text) => ({ text, starter: 'putback', station: '' })), good: 'Nothing is left off.' },
])

function keepWords(): void {
  sessionStorage.setItem(`words-${props.page.id}`, words.value)
}
async function close(): Promise<void> {
  busy.value = true
  refused.value = []
  try {
    emit('page', await closeVisit(props.page.id, { seen_version: props.page.version, customer_words: words.value, signed_by: signedBy.value, signature: signature.value }))
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
    <section v-if="page.close.closed_at" class="done"><h2><StateMark :state="levelState(page.standing.level)" :size="20" />Closed: {{ page.standing.title }}</h2><p>Signed {{ page.close.signed_by }}, {{ new Date(page.close.closed_at).toLocaleString('en-GB') }}. The tape takes no more entries.</p><p v-if="page.close.customer_words" class="quote">{{ page.close.customer_words }}</p></section>
    <template v-else>
      <section v-for="list in lists" :key="list.title" class="list">
        <h2>{{ list.title }}</h2>
        <p v-if="!list.lines.length" class="line"><StateMark state="in" />{{ list.good }}</p>
        <button v-for="line in list.lines" :key="line.text" class="line" @click="emit('begin', line.starter, line.station)"><StateMark :state="list.state" />{{ line.text }}<small>{{ line.starter }}</small></button>
      </section>
      <section class="list"><h2>Cycles</h2><p class="line"><StateMark :state="page.close.cycles_shown ? 'in' : 'none'" />{{ page.close.cycles_shown }} full cycles watched</p></section>
    </template>
    <section v-if="page.close.changes.length" class="wide"><h2>What changed, and what lay between</h2><p v-for="line in page.close.changes" :key="line">{{ line }}</p></section>
    <form v-if="page.writable" class="wide sign" @submit.prevent="close">
      <h2>Words to the customer</h2>
      <NInput v-model:value="words" type="textarea" :autosize="{ minRows: 3 }" placeholder="In plain words: what was wrong, what was done, what you advise." @update:value="keepWords" />
      <h2>Sign</h2>
      <div class="two"><label>Your name<NInput v-model:value="name" :placeholder="me?.name" :input-props="{ name: 'signed-by' }" /></label><SignaturePad v-model="signature" /></div>
      <ul v-if="refused.length" class="refused" role="alert"><li v-for="line in refused" :key="line">{{ line }}</li></ul>
      <p v-if="waiting" class="refused">{{ waiting }} entries have not reached the server: closing waits for them.</p>
      <button class="btn strong big" :disabled="busy || !!waiting">Close the visit: {{ page.standing.title.toLowerCase() }}</button>
    </form>
    <section class="wide files"><h2>Papers</h2>
      <a class="btn" :href="files[0]" target="_blank" rel="noopener">Report (PDF)</a><a class="btn" :href="files[1]">Visit bundle (JSON)</a><a class="btn" :href="files[2]">Readings (CSV)</a>
      <label v-if="page.writable" class="btn">Take in a bundle<input type="file" accept=".json,application/json" class="sr" @change="takeBundle" /></label>
      <p v-if="taken" role="status" class="taken">{{ taken }}</p>
    </section>
    <section v-if="page.photos.length" class="wide photos"><h2>Photos</h2><img v-for="photo in page.photos" :key="photo.id" :src="photo.url" :alt="photo.caption || photo.station || 'photo of the visit'" loading="lazy" /></section>
    <section v-if="page.earlier.length" class="wide"><h2>Before this visit</h2>
      <article v-for="visit in page.earlier" :key="visit.id" class="before"><h3><StateMark :state="levelState(visit.level)" />{{ visit.day }} · {{ visit.reason }} · {{ visit.technician }}</h3><p>{{ visit.words }}</p><p v-for="line in visit.advice" :key="line"><b>{{ line }}</b></p><p class="muted">{{ visit.readings.join(' · ') }}</p></article>
    </section>
  </div>
</template>

<style scoped>
.list:first-child { grid-row: span 3 } .close { flex: 1 0 auto; display: grid; grid-template-columns: 1fr 1fr; gap: 18px 28px; padding: 16px 20px 30px; align-content: start } .wide, .done { grid-column: 1 / -1 } h2 { display: flex; gap: 10px; align-items: center; font-size: 18px; font-weight: 600; margin-bottom: 4px } h3 { display: flex; gap: 8px; align-items: center; font-size: 16px; font-weight: 600 }
.line { display: flex; gap: 9px; align-items: center; width: 100%; min-height: 44px; padding: 4px 0; border: 0; border-bottom: 1px dashed var(--line); background: none; text-align: left } small { margin-left: auto; color: var(--muted); font-size: 14px } button.line:hover { text-decoration: underline }
.sign { display: grid; gap: 8px } .two { display: grid; grid-template-columns: 1fr 2fr; gap: 16px } .two label { display: grid; gap: 4px; align-content: start } .big { min-height: 54px; font-size: 18px; justify-self: start; padding: 0 28px }
.refused { color: var(--out); font-weight: 600; margin: 0; padding-left: 20px } .files { display: flex; flex-wrap: wrap; gap: 10px; align-items: center } .files h2 { flex-basis: 100%; margin: 0 } .files label { display: inline-flex; align-items: center; cursor: pointer } .taken { flex-basis: 100%; font-weight: 500 }
.quote { margin-top: 8px; padding-left: 12px; border-left: 4px solid var(--line) } .before { padding: 8px 0; border-bottom: 1px dashed var(--line) } .photos img { max-height: 180px; margin: 0 10px 10px 0; border-radius: 6px }
@media (max-width: 800px) { .list:first-child { grid-row: auto } .close { grid-template-columns: 1fr; padding: 12px } .two { grid-template-columns: 1fr } .big { width: 100% } }
</style>
