<script setup lang="ts">
import { useQuery } from '@tanstack/vue-query'
import { computed, ref } from 'vue'
import { getArrival, keys } from '@/api/calls'
import type { ApiError, Schemas } from '@/api/client'
import { levelState } from '@/ui/levels'
import StateMark from '@/ui/StateMark.vue'
import CodeTapper from './CodeTapper.vue'
import LockoutAxis from './LockoutAxis.vue'

const props = defineProps<{ page: Schemas['VisitPage'] }>()
const emit = defineEmits<{ begin: [starter: string, station?: string]; write: [line: string] }>()
const smell = ref(false)
const open = ref('')
const { data, error } = useQuery<Schemas['ArrivalOut'], ApiError>({
  queryKey: computed(() => keys.arrival(props.page.id, props.page.version)),
  queryFn: () => getArrival(props.page.id),
  placeholderData: (before) => before,
})
const state = (answer: string) => (answer === 'ok' || answer === 'read' ? 'in' : answer ? 'out' : 'none')
const found = computed(() => new Set(props.page.tape.filter((e) => e.kind === 'condition' && !e.corrected_by).map((e) => e.text)))
</script>

<template>
  <p v-if="error" class="none" role="alert">{{ error.message }}</p>
  <p v-else-if="!data" class="none muted">Loading what is known of this unit …</p>
  <div v-else class="arrival">
    <div class="col">
    <section class="safety">
      <h3>First, you</h3>
      <p>Personal CO monitor on. Room CO on entry: <b>{{ page.room_co ? `${page.room_co.text} ppm` : 'not read' }}</b></p>
      <div class="pair"><button class="btn" :disabled="!page.writable" @click="emit('begin', 'room ', 'room')">Write room CO</button><button class="btn" :disabled="!page.writable" @click="emit('begin', 'lel ', 'room')">Write % LEL</button><button class="btn danger" :aria-expanded="smell" @click="smell = !smell">I smell gas</button></div>
      <div v-if="smell" class="alarm" role="alert"><ol><li v-for="line in data.gas_smell" :key="line">{{ line }}</li></ol><button class="btn" :disabled="!page.writable" @click="emit('write', 'found gas smell')">Write it on the tape when you are outside</button></div>
    </section>

    <section>
      <h3>One minute of triage</h3>
      <div v-for="row in data.triage" :key="row.key" class="triage"><StateMark :state="state(row.answered)" /><span>{{ row.question }}</span>
        <template v-if="row.begin"><button class="btn" :disabled="!page.writable" @click="emit('begin', row.begin)">Read it</button></template>
        <template v-else><button class="btn" :disabled="!page.writable" @click="emit('write', row.good)">In order</button><button class="btn" :disabled="!page.writable" @click="emit('write', row.bad)">Not</button></template>
      </div>
    </section>
    </div>
    <div class="col">
    <section>
      <h3>What came before</h3>
      <p v-if="page.complaint"><b>“{{ page.complaint }}”</b></p>
      <p v-if="!page.earlier.length" class="muted">Nobody has written on this unit before.</p>
      <p v-for="visit in page.earlier.slice(0, 4)" :key="visit.id" class="before"><StateMark :state="levelState(visit.level)" :size="14" /><span><b>{{ visit.day }}</b> {{ visit.reason }}, {{ visit.technician }}: {{ visit.title.toLowerCase() }}. <span class="muted">{{ visit.words }}</span></span></p>
      <p v-for="words in data.refused" :key="words" class="before"><StateMark state="near" :size="14" />{{ words }}</p>
      <details v-if="data.healthy"><summary>What it read when it was healthy, {{ data.healthy.day }}</summary><p class="muted">{{ data.healthy.readings.join(' · ') }}</p></details>
    </section>

    <section v-if="data.axis">
      <h3>Gas and heat pump by outdoor temperature</h3>
      <LockoutAxis :axis="data.axis" />
      <div class="pair"><button v-for="(word, label) in { 'Outdoors': 'outdoor ', 'Gas off above': 'gas lockout ', 'Heat pump off below': 'pump lockout ' }" :key="label" class="btn" :disabled="!page.writable" @click="emit('begin', word)">{{ label }}</button></div>
    </section>
    <p><RouterLink :to="`/sites/${page.site_id}`" class="site">All units of {{ page.site }}, side by side</RouterLink></p>
    <section v-if="data.neighbours.length">
      <h3>On the same gas line <span class="muted">{{ data.gas_line }}</span></h3>
      <p v-for="n in data.neighbours" :key="n.unit" class="before"><b>{{ n.unit }}</b><span>{{ n.supply ? `supply ${n.supply.text} ${n.supply.unit} with all running, ${n.day}` : 'supply never read' }}</span></p>
      <p class="muted">Read the supply with all of them burning: what one unit lacks, its neighbour takes.</p>
    </section>
    <section v-if="data.codes.length">
      <h3>The code, before the power goes off</h3>
      <p v-if="data.code_note" class="note">{{ data.code_note }}</p>
      <CodeTapper :codes="data.codes" :shown="data.code_style" @begin="(text) => emit('begin', text)" />
    </section>
    </div>

    <section class="wide">
      <h3>Look along the paths <span class="muted">two touches write it; a photo goes with the station</span></h3>
      <div class="walks">
        <div v-for="path in data.walks" :key="path.path" class="walk" :style="{ '--path': `var(--${path.path})` }">
          <h4>{{ path.name }}</h4>
          <div v-for="stop in path.stops" :key="stop.station" class="stop">
            <button class="where" :aria-expanded="open === stop.station" @click="open = open === stop.station ? '' : stop.station">{{ stop.name }}<span class="muted">{{ stop.looks.filter((l) => found.has(l.text)).length || '' }}</span></button>
            <div v-if="open === stop.station" class="looks"><button v-for="look in stop.looks" :key="look.line" class="btn look" :class="{ done: found.has(look.text) }" :disabled="!page.writable" @click="emit('begin', look.line, stop.station)"><StateMark :state="look.weight ? levelState(look.weight) : 'in'" :size="13" />{{ look.text }}</button></div>
          </div>
        </div>
      </div>
    </section>
  </div>
</template>

<style scoped>
.site { display: inline-flex; align-items: center; min-height: 44px; color: var(--in); font-weight: 500 }
.arrival { display: grid; grid-template-columns: repeat(2, minmax(0, 1fr)); gap: 14px; padding: 14px 20px 30px } .none { padding: 30px 20px }
.col { display: grid; gap: 14px; align-content: start }
section { background: var(--plate); border: 1.5px solid var(--line); border-radius: 8px; padding: 12px 16px; display: grid; gap: 8px; align-content: start } .wide { grid-column: 1 / -1 } h3 { font-size: 18px; font-weight: 600 } h3 .muted { font-weight: 400; font-size: 15px; margin-left: 8px } h4 { margin: 0 0 4px; font-size: 17px; color: var(--path) }
.safety { border-left: 7px solid var(--out) } .pair { display: flex; gap: 10px; flex-wrap: wrap } .danger { border-color: var(--out); color: var(--out); font-weight: 600 } .alarm { background: var(--danger-ground); border-left: 5px solid var(--out); padding: 10px 14px; font-size: 18px; font-weight: 500 } .alarm ol { margin: 0 0 8px; padding-left: 20px }
.before { display: flex; gap: 8px; align-items: baseline; line-height: 1.25 } .before svg { flex: none; translate: 0 2px } summary { min-height: 36px; display: flex; align-items: center; cursor: pointer; color: var(--in) }
.triage { display: grid; grid-template-columns: 18px 1fr auto auto; gap: 10px; align-items: center } .triage .btn:nth-child(3):last-child { grid-column: 3 / -1 } .note { padding: 7px 12px; border-left: 4px solid var(--near); background: var(--paper) }
.walks { display: grid; grid-template-columns: repeat(auto-fit, minmax(190px, 1fr)); gap: 14px; align-items: start } .walk { border-left: 6px solid var(--path); padding-left: 10px } .where { display: flex; justify-content: space-between; width: 100%; min-height: 44px; align-items: center; border: 0; border-bottom: 1px solid var(--line); background: none; padding: 0; text-align: left; font-weight: 500 }
.looks { display: grid; gap: 5px; padding: 6px 0 10px } .look { display: flex; gap: 8px; align-items: center; text-align: left; padding: 4px 10px; line-height: 1.15 } .look svg { flex: none } .done { background: var(--steady) }
@media (max-width: 800px) { .arrival { grid-template-columns: minmax(0, 1fr); padding: 10px } .triage { grid-template-columns: 18px 1fr 1fr } .triage > span { grid-column: 2 / -1 } .triage .btn:nth-child(3) { grid-column: 2 } .triage .btn:nth-child(3):last-child { grid-column: 2 / -1 } }
</style>
