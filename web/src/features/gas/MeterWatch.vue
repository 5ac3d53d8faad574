<script setup lang="ts">
import { useEventListener, useIntervalFn } from '@vueuse/core'
import { computed, ref } from 'vue'
import type { Schemas } from '@/api/client'
import { fixed } from '@/ui/formats'
import { clockLine, secondsOf, turnsOf, type Passes } from './turns'

const props = defineProps<{ dials: Schemas['DialOut'][]; stage: string; writable: boolean }>()
const emit = defineEmits<{ begin: [starter: string] }>()
const chosen = ref(Math.min(2, props.dials.length - 1))
const passes = ref<Passes>([])
const now = ref(0)
const dial = computed(() => props.dials[chosen.value])
const expected = computed(() => dial.value?.seconds[props.stage])
const elapsed = computed(() =>
  passes.value.length ? Math.max(0, now.value - passes.value[0]!) / 1000 : 0,
)
useIntervalFn(() => {
  if (passes.value.length) now.value = performance.now()
}, 100)

function choose(index: number): void {
  chosen.value = index
  passes.value = []
}
function pass(): void {
  passes.value = [...passes.value, performance.now()]
  now.value = performance.now()
}
function onKey(event: KeyboardEvent): void {
  if (
    event.key !== ' ' ||
    event.repeat ||
    (event.target instanceof HTMLElement && event.target.closest('input, textarea, select, button'))
  )
    return
  event.preventDefault()
  pass()
}
useEventListener(window, 'keydown', onKey)
</script>

<template>
  <section class="watch">
    <h3>
      Clock the meter
      <span class="muted">everything else on the line off</span>
    </h3>
    <p class="dials">
      <button
        v-for="(d, i) in dials"
        :key="d.volume + d.unit"
        class="chip"
        :class="{ on: i === chosen }"
        :aria-pressed="i === chosen"
        @click="choose(i)"
      >
        {{ d.volume }} {{ d.unit.replace('3', '³') }}
      </button>
    </p>
    <button class="key" @click="pass">
      <b>
        {{ passes.length ? fixed(elapsed, 1) : fixed(0, 1) }}
        <small>s</small>
      </b>
      <span>
        {{
          passes.length
            ? `the mark passed again: turn ${turnsOf(passes) + 1}`
            : 'the mark passes: start'
        }}
        <kbd>space</kbd>
      </span>
    </button>
    <p v-if="expected" class="muted">
      At the rated input one turn takes {{ fixed(expected, 1) }} s.
    </p>
    <p v-if="turnsOf(passes)">
      <b>
        {{ turnsOf(passes) }} turn{{ turnsOf(passes) > 1 ? 's' : '' }} in
        {{ fixed(secondsOf(passes), 1) }} s
      </b>
      <span v-if="secondsOf(passes) < 30" class="muted">
        Longer is surer: half a second of yours is {{ fixed(50 / secondsOf(passes), 1) }} %.
      </span>
    </p>
    <p class="pair">
      <button
        class="btn strong"
        :disabled="!writable || !turnsOf(passes)"
        @click="dial && emit('begin', clockLine(dial.volume, dial.unit, passes))"
      >
        Write it
      </button>
      <button class="btn" :disabled="!passes.length" @click="passes = []">Again</button>
    </p>
  </section>
</template>

<style scoped>
.watch {
  display: grid;
  gap: 8px;
  align-content: start;
}
h3 {
  font-size: 18px;
}
h3 span {
  font-weight: 400;
  font-size: 15px;
  margin-left: 6px;
}
.dials,
.pair {
  display: flex;
  gap: 6px;
  flex-wrap: wrap;
}
.chip {
  min-height: 44px;
  padding: 0 12px;
  border: 1.5px solid var(--line);
  border-radius: 6px;
  background: var(--plate);
}
.on {
  background: var(--bar);
  color: var(--bar-ink);
}
.key {
  min-height: 104px;
  border: 2.5px solid var(--ink);
  border-radius: 12px;
  background: var(--plate);
  display: grid;
  place-content: center;
  text-align: center;
  touch-action: manipulation;
}
.key b {
  font-size: 40px;
  line-height: 1.1;
}
.key small {
  font-size: 20px;
  font-weight: 500;
}
kbd {
  font: 13px var(--font);
  border: 1px solid var(--line);
  border-radius: 4px;
  padding: 1px 5px;
}
</style>
