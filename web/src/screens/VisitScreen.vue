<script setup lang="ts">
import { NDrawer, NDrawerContent, NModal, useMessage } from 'naive-ui'
import { computed, defineAsyncComponent, nextTick, onMounted, onUnmounted, ref, watch } from 'vue'
import { useRouter } from 'vue-router'
import { correct, sendPhoto } from '@/api/calls'
import { ApiError, type Schemas } from '@/api/client'
import EntryBar from '@/features/entry/EntryBar.vue'
import PickList, { type ListName } from '@/features/entry/PickList.vue'
import StationDrawer from '@/features/unit/StationDrawer.vue'
import UnitView from '@/features/unit/UnitView.vue'
import { useBar } from '@/features/visit/bar'
import KeyList from '@/features/visit/KeyList.vue'
import MovedOn from '@/features/visit/MovedOn.vue'
import NotLoaded from '@/features/visit/NotLoaded.vue'
import { actionFor, VIEWS, type ViewName } from '@/features/visit/keyboard'
import SuspectsPanel from '@/features/string/SuspectsPanel.vue'
import StandingPanel from '@/features/visit/StandingPanel.vue'
import TapePanel from '@/features/visit/TapePanel.vue'
import { useVisit } from '@/features/visit/useVisit'
import VisitHeader from '@/features/visit/VisitHeader.vue'
import type { PendingLine } from '@/outbox/store'
import { deviceName, localIso, useOutbox } from '@/outbox/useOutbox'
import { useTheme } from '@/ui/theme'
import WhyList from '@/ui/WhyList.vue'

const VIEW_FILES = {
  arrival: () => import('@/features/arrival/ArrivalView.vue'),
  flue: () => import('@/features/flue/FlueView.vue'),
  gas: () => import('@/features/gas/GasView.vue'),
  draft: () => import('@/features/draft/DraftView.vue'),
  air: () => import('@/features/air/AirView.vue'),
  string: () => import('@/features/string/StringView.vue'),
  exchanger: () => import('@/features/exchanger/ExchangerView.vue'),
  close: () => import('@/features/close/CloseView.vue'),
}
const ArrivalView = defineAsyncComponent({ loader: VIEW_FILES.arrival, errorComponent: NotLoaded })
const FlueView = defineAsyncComponent({ loader: VIEW_FILES.flue, errorComponent: NotLoaded })
const GasView = defineAsyncComponent({ loader: VIEW_FILES.gas, errorComponent: NotLoaded })
const DraftView = defineAsyncComponent({ loader: VIEW_FILES.draft, errorComponent: NotLoaded })
const AirView = defineAsyncComponent({ loader: VIEW_FILES.air, errorComponent: NotLoaded })
const StringView = defineAsyncComponent({ loader: VIEW_FILES.string, errorComponent: NotLoaded })
const ExchangerView = defineAsyncComponent({ loader: VIEW_FILES.exchanger, errorComponent: NotLoaded })
const CloseView = defineAsyncComponent({ loader: VIEW_FILES.close, errorComponent: NotLoaded })
/** Fetches the other views once the first one stands, so that they open in a cellar without signal. */
const FETCH_AHEAD_MS = 1500
const ahead = window.setTimeout(() => Object.values(VIEW_FILES).forEach((load) => void load().catch(() => undefined)), FETCH_AHEAD_MS)
const props = defineProps<{ id: number; view: string }>()
const router = useRouter()
const message = useMessage()
const bar = useBar()
const theme = useTheme()
const outbox = useOutbox()
const { page, error, stale, replace } = useVisit(() => props.id)
const narrow = ref(window.innerWidth <= 800)
const sheet = ref<'none' | 'standing' | 'tape'>('none')
const list = ref<ListName | null>(null)
const stationKey = ref('')
const figure = ref<Schemas['Explained'] | null>(null)
const showKeys = ref(false)
const suspects = ref<Schemas['SuspectsOut'] | null>(null)
const pending = computed(() => outbox.lines.filter((line) => line.visit === props.id))
const waiting = computed(() => pending.value.filter((line) => !line.refused).length)
const away = computed(() => stale.value || (waiting.value > 0 && outbox.unreachable))
const tabs = computed(() => VIEWS.filter((tab) => tab.view !== 'exchanger' || page.value?.has_exchanger))
const side = computed(() => (page.value?.paths.some((path) => path.key === 'water') ? 'Water' : 'Air'))
const station = computed(() => page.value?.paths.flatMap((path) => path.stations).find((s) => s.key === stationKey.value))

watch(() => page.value?.id, () => {
  bar.stage = page.value?.stages.at(-1)?.key ?? null
  bar.correcting = null
  bar.instrument = page.value?.instruments.find((i) => i.kind === 'analyzer' && i.in_date)?.id ?? null
}, { immediate: true })

/** On a narrow screen the tabs are wider than it: the one in hand is brought into sight. */
watch(() => props.view, () => void nextTick(() => document.querySelector('.tabs .on')?.scrollIntoView({ inline: 'center', block: 'nearest' })), { immediate: true })
const go = (view: ViewName) => void router.replace(`/visits/${props.id}/${view}`)
const tell = (trouble: unknown) => message.error(trouble instanceof ApiError ? trouble.message : String(trouble), { duration: 8000, closable: true })

async function write(text: string): Promise<void> {
  await outbox.add({ visit: props.id, text, stage: bar.stage, phase: bar.phase, instrument: bar.instrument })
}
const asksWhy = ref('') // the entry of a danger: it is not struck without a reason
async function correctEntry(corrects: string, text: string | null, why = ''): Promise<void> {
  try {
    replace(await correct(props.id, { id: crypto.randomUUID(), corrects, text, why, at: localIso(new Date()), sent_at: localIso(new Date()), device: deviceName() }))
    bar.correcting = null
    asksWhy.value = ''
  } catch (trouble) {
    if (text) bar.text = text
    if (trouble instanceof ApiError && trouble.code === 'strike_reason') asksWhy.value = corrects
    tell(trouble)
  }
}
function beginCorrection(entry: Schemas['EntryOut']): void {
  bar.correcting = { id: entry.id, text: `${entry.text} ${entry.value}` }
  sheet.value = 'none'
  bar.begin(entry.typed)
}
async function restore(line: PendingLine): Promise<void> {
  bar.begin(line.text)
  await outbox.remove(line.id)
}
function begin(starter: string, where = ''): void {
  stationKey.value = ''
  sheet.value = 'none'
  bar.station = where
  bar.begin(starter)
}
function pick(line: string): void {
  list.value = null
  bar.begin(line)
}
async function photo(file: File): Promise<void> {
  try {
    replace(await sendPhoto(props.id, file, bar.station, () => undefined))
    message.success('The photo is with the visit.')
  } catch (trouble) {
    tell(trouble)
  }
}
function openStation(key: string): void {
  if (!key) return
  stationKey.value = key
  bar.station = key
}

function onKey(event: KeyboardEvent): void {
  const action = actionFor(event)
  if (!action || !page.value) return
  event.preventDefault()
  if (action.kind === 'view') go(action.view)
  else if (action.kind === 'bar') bar.focus()
  else if (action.kind === 'next' && page.value.standing.next_step) begin(page.value.standing.next_step.starter, page.value.standing.next_step.station)
  else if (action.kind === 'phase') bar.phase = action.phase
  else if (action.kind === 'jumpers') list.value = 'jumpers'
  else if (action.kind === 'theme') theme.toggle()
  else if (action.kind === 'keys') showKeys.value = true
}
const onResize = () => (narrow.value = window.innerWidth <= 800)
onMounted(() => { window.addEventListener('keydown', onKey); window.addEventListener('resize', onResize) })
onUnmounted(() => { window.clearTimeout(ahead); window.removeEventListener('keydown', onKey); window.removeEventListener('resize', onResize) })
</script>

<template>
  <div v-if="page" class="visit" :class="{ narrow }">
    <VisitHeader :page="page" :waiting="waiting" :stale="away" />
    <nav class="tabs" aria-label="Views">
      <button v-for="tab in tabs" :key="tab.view" :class="{ on: view === tab.view }" :aria-current="view === tab.view" @click="go(tab.view)">{{ tab.view === 'air' ? side : tab.name }} <kbd>{{ tab.key }}</kbd></button>
      <button class="keys" aria-label="Show the keys" @click="showKeys = true">?</button>
    </nav>
    <button v-if="narrow" class="strip" :aria-expanded="sheet === 'standing'" @click="sheet = sheet === 'standing' ? 'none' : 'standing'"><StandingPanel :standing="page.standing" :waiting="waiting" :stale="away" folded /></button>
    <main>
      <p v-if="page.complaint && view === 'unit'" class="complaint">“{{ page.complaint }}”</p>
      <ArrivalView v-if="view === 'arrival'" :page="page" @begin="begin" @write="write" />
      <UnitView v-else-if="view === 'unit'" :page="page" :chosen="stationKey || bar.station" @pick="(s) => openStation(s.key)" />
      <FlueView v-else-if="view === 'flue'" :page="page" @page="replace" @why="(f) => (figure = f)" />
      <GasView v-else-if="view === 'gas'" :page="page" @page="replace" @begin="begin" @why="(f) => (figure = f)" />
      <DraftView v-else-if="view === 'draft'" :page="page" @page="replace" @begin="begin" @why="(f) => (figure = f)" />
      <AirView v-else-if="view === 'air'" :page="page" @begin="begin" @why="(f) => (figure = f)" />
      <StringView v-else-if="view === 'string'" :page="page" :narrow="narrow" @begin="begin" @write="write" @suspects="(found) => (suspects = found)" />
      <ExchangerView v-else-if="view === 'exchanger'" :page="page" @page="replace" @begin="begin" @write="write" />
      <CloseView v-else :page="page" :waiting="waiting" @page="replace" @begin="begin" />
    </main>
    <aside v-if="!narrow">
      <SuspectsPanel v-if="view === 'string' && suspects" :found="suspects" :tape="page.tape" :jumpers="page.jumpers" :put-backs="page.close.put_backs" :writable="page.writable" @begin="begin" />
      <StandingPanel v-else :standing="page.standing" :waiting="waiting" :stale="away" @station="openStation" @next="begin" />
      <MovedOn v-if="!narrow" :page="page" @page="replace" />
      <TapePanel :tape="page.tape" :pending="pending" :writable="page.writable" @correct="beginCorrection" :asks-why="asksWhy" @strike="(e, why) => correctEntry(e.id, null, why)" @restore="restore" @discard="(l) => outbox.remove(l.id)" />
    </aside>
    <button v-else class="pull" @click="sheet = 'tape'">Tape · {{ page.tape.length }} lines <b v-if="page.tape[0]">{{ page.tape[0].text }} {{ page.tape[0].value }}</b></button>
    <EntryBar :view="view" :page="page" :narrow="narrow" @write="write" @correct="(text) => bar.correcting && correctEntry(bar.correcting.id, text)" @list="(name) => (list = name)" @photo="photo" />

    <NDrawer :show="narrow && sheet !== 'none'" placement="bottom" height="78%" @update:show="sheet = 'none'"><NDrawerContent :title="sheet === 'tape' ? 'Tape' : 'Standing'" closable body-content-style="padding: 0">
      <StandingPanel v-if="sheet === 'standing'" :standing="page.standing" :waiting="waiting" :stale="away" @station="(key) => { sheet = 'none'; openStation(key) }" @next="begin" />
      <MovedOn v-if="sheet === 'standing'" :page="page" @page="replace" />
      <TapePanel v-else :tape="page.tape" :pending="pending" :writable="page.writable" @correct="beginCorrection" :asks-why="asksWhy" @strike="(e, why) => correctEntry(e.id, null, why)" @restore="restore" @discard="(l) => outbox.remove(l.id)" />
    </NDrawerContent></NDrawer>
    <NDrawer :show="!!station" :width="420" :height="'78%'" :placement="narrow ? 'bottom' : 'right'" @update:show="stationKey = ''"><NDrawerContent v-if="station" :title="station.name" closable><StationDrawer :station="station" :earlier="page.earlier" :writable="page.writable" @begin="(starter) => begin(starter, station?.key)" /></NDrawerContent></NDrawer>
    <PickList :visit="id" :list="list" :station="bar.station" :narrow="narrow" @pick="pick" @close="list = null" />
    <NModal :show="!!figure" preset="card" style="max-width: 560px" title="Why?" @update:show="figure = null"><WhyList v-if="figure" :figure="figure" /></NModal>
    <NModal :show="showKeys" preset="card" style="max-width: 520px" title="Keys and words" @update:show="showKeys = false"><KeyList /></NModal>
  </div>
  <main v-else class="blank"><p v-if="!error">Loading the visit …</p><template v-else><p>{{ error.message }}</p><RouterLink to="/" class="btn">Back to the round</RouterLink></template></main>
</template>

<style scoped>
.visit { display: grid; height: 100dvh; grid-template: 'head head' 54px 'tabs side' 38px 'main side' 1fr 'bar bar' auto / minmax(0, 1fr) 392px }
.tabs { grid-area: tabs; display: flex; align-items: stretch; gap: 4px; padding: 0 12px; border-bottom: 1.5px solid var(--line) } .tabs button { position: relative; border: 0; background: none; padding: 0 9px; white-space: nowrap; font-size: 17px; font-weight: 500; color: var(--muted) } .tabs .on { color: var(--ink); font-weight: 600; box-shadow: inset 0 -4px var(--accent) }
.tabs button::after { content: ''; position: absolute; inset: -3px 0 } kbd { font: 13px var(--font); border: 1px solid var(--line); border-radius: 4px; padding: 1px 5px; margin-left: 4px; background: var(--plate) } .tabs .keys { min-width: 44px; margin-left: auto }
main { grid-area: main; overflow: auto; min-height: 0; display: flex; flex-direction: column } .complaint { padding: 8px 20px 0; font-weight: 500 }
aside { grid-area: side; overflow-y: auto; background: var(--plate); border-left: 1.5px solid var(--line) }
.narrow { grid-template: 'head' 50px 'tabs' 46px 'strip' auto 'main' 1fr 'pull' auto 'bar' auto / minmax(0, 1fr) } .narrow main { overflow: hidden auto } .narrow kbd { display: none } .narrow .tabs { overflow-x: auto } .narrow .tabs button { flex: 1 0 auto; white-space: nowrap; padding: 0 6px } .narrow .tabs .keys { flex: 0 0 44px }
.strip { grid-area: strip; min-height: 46px; border: 0; padding: 0; background: var(--plate); text-align: left } .strip :deep(.standing) { padding: 9px 14px } .strip :deep(h2) { font-size: 18px }
.pull { grid-area: pull; display: flex; justify-content: space-between; gap: 12px; min-height: 44px; padding: 0 14px; align-items: center; border: 0; border-top: 1.5px solid var(--line); background: var(--plate); white-space: nowrap; overflow: hidden } .pull b { overflow: hidden; text-overflow: ellipsis; font-weight: 500 }
.blank { display: grid; place-content: center; height: 100%; gap: 14px; text-align: center }
@media (max-height: 760px) and (max-width: 800px) { .narrow .complaint { display: none } }
</style>
