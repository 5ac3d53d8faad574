<script setup lang="ts">
import { computed, onUnmounted, ref } from 'vue'
import type { Schemas } from '@/api/client'
import StateMark from '@/ui/StateMark.vue'
import { running } from './stopwatch'

const props = defineProps<{ found: Schemas['SuspectsOut']; tape: Schemas['EntryOut'][]; jumpers: Schemas['JumperOut'][]; putBacks: string[]; writable: boolean }>()
const emit = defineEmits<{ begin: [starter: string] }>()
const other = ref(false)
const now = ref(Date.now())
const clock = window.setInterval(() => (now.value = Date.now()), 10_000)
onUnmounted(() => window.clearInterval(clock))
const first = computed(() => props.found.suspects[0])
/** The entry as it stands on the tape: what was typed, in its own unit. */
function written(id: string): string {
  const entry = props.tape.find((e) => e.id === id)
  return entry ? `${entry.text} ${entry.value}`.trim() : ''
}
const percent = (share: number) => (share > 0.995 ? '> 99 %' : share < 0.01 ? '< 1 %' : `${Math.round(100 * share)} %`)
const title = computed(() => {
  if (!props.found.given) return 'Nothing tested yet'
  if (props.found.conflicts.length) return 'Does not fit together'
  return props.found.clear ? `It is the ${first.value?.name.toLowerCase()}` : `${first.value?.name} comes first`
})
</script>

<template>
  <section class="suspects" aria-live="polite">
    <h2><StateMark :state="found.conflicts.length ? 'near' : found.clear ? 'out' : 'none'" :size="20" />{{ title }}</h2>
    <div v-for="row in found.conflicts" :key="row.name + row.entry_id" class="conflict"><b>{{ written(row.entry_id) || `${row.name}: ${row.shown}` }}</b>; the rest says: {{ row.expected }}. Read it again, or think of two faults.</div>
    <ol v-if="found.clear" class="proof"><li v-for="line in found.proof" :key="line">{{ line }}</li></ol>
    <button v-if="found.clear && writable" class="btn strong" @click="emit('begin', `cause ${first?.name.toLowerCase()}`)">Name the cause</button>
    <div v-if="found.next" class="next">
      <button :disabled="!writable" @click="emit('begin', found.next.starter)">
        <small>NEXT · about {{ found.next.minutes }} min</small><b>{{ found.next.title }}</b>
      </button>
      <p v-if="found.next.caution" class="caution"><b>Mind:</b> {{ found.next.caution }}</p>
      <ul><li v-for="m in found.next.meanings" :key="m.outcome"><b>{{ m.outcome }}</b> <span class="muted">{{ percent(m.share) }}</span> → {{ m.first }} <span class="muted">{{ percent(m.first_share) }}</span></li></ul>
      <button v-if="found.others.length" class="ask" :aria-expanded="other" @click="other = !other">{{ other ? 'Back to the one offered' : 'Something else instead' }}</button>
      <ul v-if="other" class="others"><li v-for="o in found.others" :key="o.title"><button class="btn" :disabled="!writable" @click="emit('begin', o.starter)">{{ o.title }} <span class="muted">{{ o.minutes }} min</span></button></li></ul>
    </div>
    <h3>Suspects, given {{ found.given }} reading{{ found.given === 1 ? '' : 's' }}</h3>
    <div v-for="s in found.suspects" :key="s.part" class="suspect">
      <p><b>{{ s.name }}</b><span>{{ percent(s.share) }}</span></p>
      <i class="bar"><i :style="{ width: `${100 * s.share}%` }" /></i>
      <p class="muted">{{ s.faults.slice(0, 2).join('; ') }}</p>
    </div>
    <details v-if="found.beforehand.length" class="beforehand"><summary>Before anything was read</summary><p v-for="line in found.beforehand" :key="line" class="muted">{{ line }}</p></details>
    <h3 class="ledger">{{ jumpers.length || putBacks.length ? 'Left abnormal' : 'Nothing left abnormal' }}</h3>
    <p v-for="j in jumpers" :key="j.how + j.device" class="in"><StateMark state="out" :size="14" /><span>{{ j.text }} Since {{ j.since.slice(11, 16) }} · {{ running(j.since, now) }}</span><button class="btn small" :disabled="!writable" @click="emit('begin', j.put_back)">Made good</button></p>
    <p v-for="line in putBacks" :key="line" class="in"><StateMark state="near" :size="14" />{{ line }}</p>
    <p class="muted">Jumpers, held switches, lifted leads, tees, open taps: all on the tape with their time. The visit cannot close while one is left.</p>
    <p v-if="writable" class="put"><button v-for="verb in ['jump', 'hold', 'lift', 'tee', 'tap']" :key="verb" class="btn small" @click="emit('begin', `${verb} `)">{{ verb }} …</button></p>
  </section>
</template>

<style scoped>
.suspects { display: grid; gap: 10px; padding: 14px 16px 24px } h2 { display: flex; gap: 10px; align-items: center; font-size: 22px; font-weight: 600; line-height: 1.15 } h3 { font-size: 17px; margin-top: 6px }
.conflict { padding: 8px 12px; border-left: 5px solid var(--near); background: var(--paper) } .proof { margin: 0; padding-left: 22px; display: grid; gap: 4px }
.next { border: 2px solid var(--ink); border-radius: 7px; padding: 11px 13px; display: grid; gap: 8px } .next > button:first-child { display: grid; gap: 2px; border: 0; background: none; padding: 0; text-align: left; min-height: 44px } .next small { font-size: 13px; font-weight: 600; color: var(--muted) } .next b { font-size: 17.5px; font-weight: 600 }
.next ul { list-style: none; margin: 0; padding: 0; display: grid; gap: 3px; font-size: 15px } .next li b { font-size: 15px } .caution { padding: 6px 10px; background: var(--danger-ground); border-left: 4px solid var(--out); font-size: 15px } .caution b { font-size: 15px }
.ask { justify-self: start; border: 0; background: none; color: var(--in); text-decoration: underline dotted; padding: 0; min-height: 44px } .others .btn { width: 100%; text-align: left; min-height: 44px; line-height: 1.2; padding: 6px 12px }
.suspect p:first-child { display: flex; justify-content: space-between } .bar { display: block; height: 7px; margin: 3px 0; background: var(--track); border-radius: 3px } .bar i { display: block; height: 100%; background: var(--string); border-radius: 3px } .suspect .muted { font-size: 14.5px; line-height: 1.2 }
.ledger { border-top: 1.5px solid var(--line); padding-top: 12px } .beforehand summary { min-height: 44px; display: flex; align-items: center; cursor: pointer; color: var(--in) } .put { display: flex; gap: 6px; flex-wrap: wrap } .small { padding: 0 12px } .in > span { flex: 1; line-height: 1.2 } .in svg { flex: none }
.in { display: flex; gap: 8px; align-items: center; font-weight: 500 }
</style>
