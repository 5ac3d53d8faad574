<script setup lang="ts">
import { useQuery, useQueryClient } from '@tanstack/vue-query'
import { computed, ref, watch } from 'vue'
import { keys } from '@/api/calls'
import type { ApiError, Schemas } from '@/api/client'
import { getMe } from '@/api/people'
import { useDesk } from '@/parts/desk/desk'
import { placed, type Leads } from '@/parts/drawing/leads'
import RungDrawing from '@/parts/drawing/RungDrawing.vue'
import WireMark from '@/parts/drawing/WireMark.vue'
import ChipRow from '@/ui/ChipRow.vue'
import MeterLeads from './MeterLeads.vue'
import SequenceChart from './SequenceChart.vue'
import SuspectsPanel from './SuspectsPanel.vue'
import UnitDiffers from './UnitDiffers.vue'
import { useMeter, useString } from './useString'

const props = defineProps<{ page: Schemas['VisitPage'] }>()
const desk = useDesk()
const cache = useQueryClient()
const { data: me } = useQuery<Schemas['Me'], ApiError>({ queryKey: keys.me, queryFn: getMe })
const state = ref('')
const load = ref('')
const leads = ref<Leads>(['', ''])
const { string, error } = useString(
  () => props.page.id,
  () => props.page.version,
  state,
)
const rung = computed(
  () => string.value?.rungs.find((r) => r.load === load.value) ?? string.value?.rungs[0],
)
const reading = useMeter(
  () => props.page.id,
  () => string.value?.state ?? '',
  leads,
)
watch(
  () => string.value?.suspects,
  (found) => desk.suspect(found ?? null),
  { immediate: true },
)

/** A state that was chosen goes with the reading: "v 3 4 in trial". */
const stamped = (line: string) => (state.value ? `${line.trim()} in ${state.value} ` : line)
function across(a: string, b: string): void {
  leads.value = [a, b]
  desk.begin(stamped(`v ${a} ${b} `))
}
</script>

<template>
  <p v-if="error" class="none" role="alert">{{ error.message }}</p>
  <p v-else-if="!string" class="none muted">Loading the circuit …</p>
  <div v-else-if="!string.known" class="none">
    <p>
      No circuit is known for this unit yet. Volts can be written across a device by its name:
      <b>v limit 0.1</b>
      (nothing is suspected without a circuit).
    </p>
    <UnitDiffers
      v-if="page.writable"
      :id="page.id"
      :string="string"
      :decides="!!me?.sees_people"
      @changed="cache.invalidateQueries()"
    />
  </div>
  <div v-else class="string">
    <SuspectsPanel
      v-if="desk.narrow.value && string.suspects"
      :found="string.suspects"
      :page="page"
    />
    <ChipRow
      label="State"
      :options="string.states"
      :chosen="state || string.state"
      @choose="(key) => (state = key)"
    />
    <ChipRow
      label="Rung"
      :options="string.rungs.map((r) => ({ key: r.load, name: r.name }))"
      :chosen="rung?.load ?? ''"
      @choose="(key) => (load = key)"
    />
    <p class="muted hint">
      Small figures: volts to common (line side: to neutral, or to the next leg) that a sound
      circuit shows in this state. Large: what was read. A state that you choose goes with what you
      read.
    </p>
    <RungDrawing
      v-if="rung"
      :rung="rung"
      :leads="leads"
      @node="(key) => (leads = placed(leads, key))"
      @part="(_key, a, b) => across(a, b)"
    />
    <p v-if="rung" class="muted hint names">
      <span v-for="node in rung.nodes" :key="node.key">
        <b>{{ node.key }}</b>
        <WireMark :wires="node.wires" />
        {{ node.name }}
      </span>
    </p>
    <MeterLeads
      :leads="leads"
      :reading="reading"
      :redraw="rung"
      @leads="(l) => (leads = l)"
      @write="(text) => desk.begin(stamped(text))"
    />
    <SequenceChart
      :events="string.events"
      :longest="string.longest_s"
      :writable="page.writable"
      @write="(line) => desk.write(line)"
      @begin="(text) => desk.begin(text)"
    />
    <UnitDiffers
      v-if="page.writable"
      :id="page.id"
      :string="string"
      :decides="!!me?.sees_people"
      @changed="cache.invalidateQueries()"
    />
  </div>
</template>

<style scoped>
.string {
  display: grid;
  grid-template-columns: minmax(0, 1fr);
  gap: 6px;
  padding: 12px 20px 30px;
}
.none {
  padding: 30px 20px;
  max-width: 60ch;
}
.hint {
  margin: 8px 0 10px;
  font-size: 14.5px;
}
.names {
  display: flex;
  flex-wrap: wrap;
  gap: 2px 16px;
}
@media (max-width: 800px) {
  .string {
    padding: 10px 6px 30px;
  }
  .hint {
    padding: 0 8px;
  }
}
</style>
