<script setup lang="ts">
import { useIntervalFn } from '@vueuse/core'
import { ref } from 'vue'
import type { Schemas } from '@/api/client'
import StateMark from '@/ui/StateMark.vue'
import { fixed } from '@/ui/formats'
import SequenceTrack from './SequenceTrack.vue'
import { seenLine, ticks } from './stopwatch'

const props = defineProps<{ events: Schemas['EventOut'][]; longest: number; writable: boolean }>()
const emit = defineEmits<{ write: [line: string]; begin: [starter: string] }>()
const started = ref<number | null>(null)
const now = ref(0)
useIntervalFn(() => (now.value = Date.now()), 100)

const at = (seconds: number) => `${(100 * seconds) / props.longest}%`
function start(): void {
  now.value = Date.now()
  started.value = now.value
}
function stop(): void {
  started.value = null
  const last = props.events.filter((e) => e.by_eye && e.seen_s !== null).at(-1)
  emit('begin', `stops ${last?.key ?? 'nothing'}`)
}
</script>

<template>
  <section class="sequence">
    <header>
      <h2>What it did, against what it should do</h2>
      <template v-if="writable">
        <button v-if="started === null" class="btn" @click="start">
          Call made: start the watch
        </button>
        <template v-else>
          <b class="clock">{{ fixed((now - started) / 1000, 1) }} s</b>
          <button class="btn" @click="stop">It stopped here</button>
        </template>
      </template>
      <span class="muted">
        pale: when it should begin · dark: when it did · seconds after the call
      </span>
    </header>
    <div v-for="event in events" :key="event.key" class="row">
      <button
        class="who"
        :disabled="started === null"
        @click="emit('write', seenLine(event.key, started ?? 0, Date.now()))"
      >
        <StateMark :state="event.state" :size="14" />
        {{ event.name }}
        <small v-if="started !== null">now</small>
      </button>
      <SequenceTrack :event="event" :longest="longest" />
    </div>
    <div class="row axis">
      <span />
      <div class="bare">
        <span v-for="tick in ticks(longest)" :key="tick" :style="{ left: at(tick) }">
          {{ tick }}
        </span>
      </div>
    </div>
  </section>
</template>

<style scoped>
.sequence {
  display: grid;
  gap: 5px;
  margin-top: 22px;
}
header {
  display: flex;
  flex-wrap: wrap;
  gap: 6px 16px;
  align-items: center;
  margin-bottom: 4px;
}
header .muted {
  margin-left: auto;
  font-size: 14.5px;
}
h2 {
  color: var(--string);
  font-size: 18px;
}
.clock {
  font-size: 24px;
  min-width: 84px;
  text-align: right;
}
.row {
  display: grid;
  grid-template-columns: 178px 1fr;
  gap: 10px;
  align-items: center;
}
.who {
  display: flex;
  gap: 8px;
  align-items: center;
  min-height: 30px;
  border: 0;
  background: none;
  padding: 0;
  text-align: left;
}
.who:disabled {
  color: inherit;
  cursor: default;
}
.who:not(:disabled) {
  min-height: 44px;
  padding: 0 8px;
  border: 1.5px solid var(--ink);
  border-radius: 6px;
  background: var(--plate);
}
.who small {
  margin-left: auto;
  color: var(--muted);
}
.bare {
  position: relative;
  background: none;
  height: 18px;
}
.bare span {
  position: absolute;
  translate: -50% 0;
  font-size: 13px;
  color: var(--muted);
}
.bare span:first-child {
  translate: 0 0;
}
@media (max-width: 800px) {
  .row {
    grid-template-columns: 124px 1fr;
  }
  .sequence {
    padding: 0 10px;
  }
  header .muted {
    margin-left: 0;
  }
}
</style>
