<script setup lang="ts">
import { computed, ref } from 'vue'
import { useRoute, useRouter } from 'vue-router'
import type { Schemas } from '@/api/client'
import EntryBar from '@/features/entry/EntryBar.vue'
import PickList from '@/features/entry/PickList.vue'
import { usePicking } from '@/features/entry/usePicking'
import SuspectsPanel from '@/features/string/SuspectsPanel.vue'
import StationSheet from '@/features/unit/StationSheet.vue'
import type { ViewName } from '@/features/visit/keyboard'
import MovedOn from '@/features/visit/MovedOn.vue'
import NextStep from '@/features/visit/NextStep.vue'
import NotLoaded from '@/features/visit/NotLoaded.vue'
import PhoneSheet from '@/features/visit/PhoneSheet.vue'
import StandingPanel from '@/features/visit/StandingPanel.vue'
import TapeSide from '@/features/visit/TapeSide.vue'
import { useBarOfVisit } from '@/features/visit/useBarOfVisit'
import { useFetchAhead } from '@/features/visit/useFetchAhead'
import { useOffered } from '@/features/visit/useOffered'
import { useVisit } from '@/features/visit/useVisit'
import { useVisitKeys } from '@/features/visit/useVisitKeys'
import { useWriting } from '@/features/visit/useWriting'
import VisitBlank from '@/features/visit/VisitBlank.vue'
import VisitDialogs from '@/features/visit/VisitDialogs.vue'
import VisitHeader from '@/features/visit/VisitHeader.vue'
import VisitTabs from '@/features/visit/VisitTabs.vue'
import { useOutbox } from '@/outbox/useOutbox'
import { useBar } from '@/parts/desk/bar'
import { provideDesk } from '@/parts/desk/desk'
import { useTheme } from '@/ui/theme'
import { useNarrow } from '@/ui/useNarrow'
import { VIEW_FILES } from './visitViews'

const props = defineProps<{ id: number }>()
const route = useRoute()
const router = useRouter()
const bar = useBar()
const theme = useTheme()
const outbox = useOutbox()
const narrow = useNarrow()
const missing = useFetchAhead(Object.values(VIEW_FILES))
const { page, error, stale, replace } = useVisit(() => props.id)
const writing = useWriting(() => props.id, page)
const waiting = writing.waiting
const picking = usePicking({
  write: writing.write,
  photo: writing.photo,
})
const view = computed<ViewName>(() => route.meta.view ?? 'unit')
const sheet = ref<'none' | 'standing' | 'tape'>('none')
const stationKey = ref('')
const figure = ref<Schemas['Explained'] | null>(null)
const showKeys = ref(false)
const suspects = ref<Schemas['SuspectsOut'] | null>(null)
const away = computed(() => stale.value || (waiting.value > 0 && outbox.unreachable))
const judged = computed(() => ({
  standing: page.value!.standing,
  waiting: waiting.value,
  stale: away.value,
  writable: page.value!.writable,
}))
const offered = useOffered(page, view, () => narrow.value && !away.value)

useBarOfVisit(page)

const go = (to: ViewName) => void router.replace({ name: `visit-${to}`, params: { id: props.id } })

function begin(starter: string, where = ''): void {
  stationKey.value = ''
  sheet.value = 'none'
  bar.station = where
  bar.begin(starter)
}
function beginNext(): void {
  const next = page.value?.standing.next_step
  if (next) begin(next.starter, next.station)
}
/** An outcome that was touched is written as its line. */
function answer(line: string): void {
  sheet.value = 'none'
  writing.write(line)
}
function openStation(key: string): void {
  sheet.value = 'none'
  if (!key) return
  stationKey.value = key
  bar.station = key
}

useVisitKeys(() => !!page.value, {
  view: go,
  bar: () => bar.focus(),
  next: beginNext,
  phase: (phase) => (bar.phase = phase),
  jumpers: () => picking.open('jumpers'),
  theme: () => theme.toggle(),
  keys: () => (showKeys.value = true),
})

provideDesk({
  narrow,
  waiting,
  chosen: computed(() => stationKey.value || bar.station),
  open: openStation,
  replace,
  begin,
  write: writing.write,
  pick: (part, name = 'found') => picking.open(name, part),
  why: (asked) => (figure.value = asked),
  suspect: (found) => (suspects.value = found),
})
</script>

<template>
  <div v-if="page" class="visit">
    <VisitHeader :page="page" :view="view" :waiting="waiting" :stale="away" />
    <VisitTabs :page="page" :view="view" @go="go" @keys="showKeys = true" />
    <button
      v-if="narrow"
      class="strip"
      :aria-expanded="sheet === 'standing'"
      @click="sheet = sheet === 'standing' ? 'none' : 'standing'"
    >
      <StandingPanel v-bind="judged" folded />
    </button>
    <main id="main" tabindex="-1">
      <NextStep
        v-if="offered"
        class="offered"
        :step="offered"
        :writable="page.writable"
        @next="begin"
        @write="answer"
      />
      <p v-if="page.complaint && view === 'unit'" class="complaint">“{{ page.complaint }}”</p>
      <NotLoaded v-if="missing" />
      <RouterView v-else v-slot="{ Component }">
        <component :is="Component" :page="page" />
      </RouterView>
    </main>
    <aside v-if="!narrow" aria-label="Standing and tape">
      <SuspectsPanel v-if="view === 'string' && suspects" :found="suspects" :page="page" />
      <StandingPanel
        v-else
        v-bind="judged"
        :folded="view === 'close'"
        @station="openStation"
        @next="begin"
        @write="answer"
      />
      <MovedOn :page="page" @page="replace" />
      <TapeSide :page="page" :writing="writing" />
    </aside>
    <button v-else class="pull" @click="sheet = 'tape'">
      Tape · {{ page.tape.length }} {{ page.tape.length === 1 ? 'line' : 'lines' }}
      <b v-if="page.tape[0]">{{ page.tape[0].text }} {{ page.tape[0].value }}</b>
    </button>
    <EntryBar
      :view="view"
      :page="page"
      :narrow="narrow"
      @write="writing.write"
      @correct="(text) => bar.correcting && writing.correctEntry(bar.correcting.id, text)"
      @list="(name) => picking.open(name)"
      @photo="writing.photo"
      @page="replace"
    />

    <PhoneSheet title="Standing" :shown="narrow && sheet === 'standing'" @close="sheet = 'none'">
      <StandingPanel v-bind="judged" @station="openStation" @next="begin" @write="answer" />
      <MovedOn :page="page" @page="replace" />
    </PhoneSheet>
    <PhoneSheet title="Tape" :shown="narrow && sheet === 'tape'" @close="sheet = 'none'">
      <TapeSide :page="page" :writing="writing" @corrects="sheet = 'none'" />
    </PhoneSheet>
    <StationSheet
      :chosen="stationKey"
      :page="page"
      :narrow="narrow"
      @begin="(starter) => begin(starter, stationKey)"
      @close="stationKey = ''"
    />
    <PickList
      :visit="id"
      :list="picking.list.value"
      :at="picking.part.value"
      :station="bar.station"
      :narrow="narrow"
      @write="picking.write"
      @begin="picking.begin"
      @photo="picking.photo"
      @close="picking.close"
    />
    <VisitDialogs v-model:figure="figure" v-model:keys="showKeys" />
  </div>
  <VisitBlank v-else :error="error?.message" />
</template>

<style scoped src="./visitScreen.css"></style>
