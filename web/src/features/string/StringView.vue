<script setup lang="ts">
import { computed, ref, watch } from 'vue'
import type { Schemas } from '@/api/client'
import { placed } from './leads'
import MeterLeads from './MeterLeads.vue'
import RungDrawing from './RungDrawing.vue'
import SequenceChart from './SequenceChart.vue'
import SuspectsPanel from './SuspectsPanel.vue'
import { useMeter, useString, type Leads } from './useString'

const props = defineProps<{ page: Schemas['VisitPage']; narrow: boolean }>()
const emit = defineEmits<{ begin: [starter: string]; write: [line: string]; suspects: [found: Schemas['SuspectsOut'] | null] }>()
const state = ref('')
const load = ref('')
const leads = ref<Leads>(['', ''])
const { string, error } = useString(() => props.page.id, () => props.page.version, state)
const rung = computed(() => string.value?.rungs.find((r) => r.load === load.value) ?? string.value?.rungs[0])
const reading = useMeter(() => props.page.id, () => string.value?.state ?? '', leads)
watch(() => string.value?.suspects, (found) => emit('suspects', found ?? null), { immediate: true })

function across(a: string, b: string): void {
  leads.value = [a, b]
  emit('begin', `v ${a} ${b} `)
}
</script>

<template>
  <p v-if="error" class="none" role="alert">{{ error.message }}</p>
  <p v-else-if="!string" class="none muted">Loading the circuit …</p>
  <p v-else-if="!string.known" class="none">No circuit is known for this unit yet. Volts can be written across a device by its name: <b>v limit 0.1</b>. Nothing is suspected without a circuit.</p>
  <div v-else class="string">
    <div class="states"><span class="muted">State</span>
      <button v-for="s in string.states" :key="s.key" class="chip" :class="{ on: s.key === string.state }" :aria-pressed="s.key === string.state" @click="state = s.key">{{ s.name }}</button>
    </div>
    <div class="states rungs"><span class="muted">Rung</span>
      <button v-for="r in string.rungs" :key="r.load" class="chip" :class="{ on: r === rung }" :aria-pressed="r === rung" @click="load = r.load">{{ r.name }}</button>
    </div>
    <p class="muted hint">Small figures: volts to common (line side: to neutral) that a sound circuit shows in this state. Large: what was read.</p>
    <RungDrawing v-if="rung" :rung="rung" :leads="leads" @node="(key) => (leads = placed(leads, key))" @part="(_key, a, b) => across(a, b)" />
    <MeterLeads :leads="leads" :reading="reading" :redraw="rung" @leads="(l) => (leads = l)" @write="(text) => emit('begin', text)" />
    <SequenceChart :events="string.events" :longest="string.longest_s" :writable="page.writable" @write="(line) => emit('write', line)" @begin="(text) => emit('begin', text)" />
    <SuspectsPanel v-if="narrow && string.suspects" :found="string.suspects" :tape="page.tape" :jumpers="page.jumpers" :put-backs="page.close.put_backs" :writable="page.writable" @begin="(text) => emit('begin', text)" />
  </div>
</template>

<style scoped>
.string { padding: 12px 20px 30px } .none { padding: 30px 20px; max-width: 60ch }
.states { display: flex; gap: 6px; align-items: center; flex-wrap: wrap } .states > .muted { width: 44px } .chip { min-height: 44px; padding: 0 12px; border: 1.5px solid var(--line); border-radius: 6px; background: var(--plate); font-size: 15px } .chip.on { background: var(--bar); color: var(--bar-ink); border-color: var(--bar-line) }
.rungs { margin-top: 6px } .rungs .chip { min-height: 36px; position: relative } .rungs .chip::after { content: ''; position: absolute; inset: -4px 0 } .hint { margin: 8px 0 10px; font-size: 14.5px }
@media (max-width: 800px) { .string { padding: 10px 6px 30px } .states { flex-wrap: nowrap; overflow-x: auto; padding: 0 6px } .states .chip { white-space: nowrap } .hint { padding: 0 8px } }
</style>
