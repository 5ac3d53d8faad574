<script setup lang="ts">
import { computed } from 'vue'
import type { Schemas } from '@/api/client'
import { useDesk } from '@/parts/desk/desk'
import StateMark from '@/ui/StateMark.vue'
import LeftAbnormal from './LeftAbnormal.vue'
import NextTest from './NextTest.vue'
import SearchHistory from './SearchHistory.vue'
import { percent } from './share'

const props = defineProps<{ found: Schemas['SuspectsOut']; page: Schemas['VisitPage'] }>()
const desk = useDesk()
const first = computed(() => props.found.suspects[0])

/** The entry as it stands on the tape: what was typed, in its own unit. */
function written(id: string): string {
  const entry = props.page.tape.find((e) => e.id === id)
  return entry ? `${entry.text} ${entry.value}`.trim() : ''
}
const state = computed(() =>
  props.found.conflicts.length ? 'near' : props.found.clear ? 'out' : 'none',
)
</script>

<template>
  <section class="suspects" aria-live="polite">
    <h2>
      <StateMark :state="state" :size="20" />
      {{ found.headline }}
    </h2>
    <p v-for="row in found.conflicts" :key="row.name + row.entry_id" class="conflict">
      <b>{{ written(row.entry_id) || `${row.name}: ${row.shown}` }}</b>
      – the rest says: {{ row.expected }}.
    </p>
    <p v-for="line in found.jumpers" :key="line" class="conflict jumper">{{ line }}</p>
    <ol v-if="found.proof.length" class="proof">
      <li v-for="line in found.proof" :key="line">{{ line }}</li>
    </ol>
    <button
      v-if="found.clear && page.writable"
      class="btn strong"
      @click="desk.begin(`cause ${first?.name.toLowerCase()}`)"
    >
      Name the cause
    </button>
    <NextTest
      v-if="found.next"
      :next="found.next"
      :others="found.others"
      :writable="page.writable"
      @begin="(starter) => desk.begin(starter)"
      @write="(line) => desk.write(line)"
    />
    <h3>Suspects, given {{ found.given }} reading{{ found.given === 1 ? '' : 's' }}</h3>
    <div v-for="s in found.suspects" :key="s.kind + s.part" class="suspect">
      <p>
        <b>{{ s.name }}</b>
        <span>{{ percent(s.share) }}</span>
      </p>
      <i class="bar"><i :style="{ width: `${100 * s.share}%` }" /></i>
      <p class="muted">{{ s.faults.slice(0, 2).join('; ') }}</p>
    </div>
    <details v-if="found.beforehand.length">
      <summary>Before anything was read</summary>
      <p v-for="line in found.beforehand" :key="line" class="muted">{{ line }}</p>
    </details>
    <SearchHistory :page="page" />
    <LeftAbnormal :page="page" @begin="(starter) => desk.begin(starter)" />
  </section>
</template>

<style scoped>
.suspects {
  display: grid;
  gap: 10px;
  padding: 14px 16px 24px;
}
h2 {
  display: flex;
  gap: 10px;
  align-items: center;
  font-size: 22px;
  font-weight: 600;
  line-height: 1.15;
}
h3 {
  font-size: 17px;
  margin-top: 6px;
}
.conflict {
  padding: 8px 12px;
  border-left: 5px solid var(--near);
  background: var(--paper);
}
.proof {
  margin: 0;
  padding-left: 22px;
  display: grid;
  gap: 4px;
}
.suspect p:first-child {
  display: flex;
  justify-content: space-between;
}
.bar {
  display: block;
  height: 7px;
  margin: 3px 0;
  background: var(--track);
  border-radius: 3px;
}
.bar i {
  display: block;
  height: 100%;
  background: var(--string);
  border-radius: 3px;
}
.suspect .muted {
  font-size: 14.5px;
  line-height: 1.2;
}
summary {
  min-height: 44px;
  display: flex;
  align-items: center;
  cursor: pointer;
  color: var(--in);
}
</style>
