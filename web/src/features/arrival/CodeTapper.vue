<script setup lang="ts">
import { computed, ref } from 'vue'
import type { Schemas } from '@/api/client'
import CodeChart from './CodeChart.vue'
import CodeRead from './CodeRead.vue'
import { beatsOf, coloursOf, digitsOf, isLong, type Flash } from './tapCode'

const props = defineProps<{
  codes: Schemas['CodeOut'][]
  shown: Schemas['ArrivalOut']['code_style']
}>()
const emit = defineEmits<{ begin: [starter: string] }>()
const tapped = ref<Flash[]>([])
const down = ref<number | null>(null)
const lamps = ref<string[]>([])
const COLOURS = ['red', 'amber', 'green', 'blue', 'white', 'orange']
const colours = computed(() =>
  COLOURS.filter((colour) => props.codes.some((code) => code.pattern.split(' ').includes(colour))),
)
const flashes = computed(() => props.shown === 'flashes' || props.shown === 'beats')
const pattern = computed(() =>
  props.shown === 'colours'
    ? coloursOf(lamps.value)
    : props.shown === 'beats'
      ? beatsOf(tapped.value)
      : digitsOf(tapped.value),
)
const meaning = computed(() => props.codes.find((code) => code.pattern === pattern.value)?.meaning)

const hint = computed(() => {
  if (props.shown === 'colours') return 'Tap the colour at each flash.'
  return props.shown === 'beats'
    ? 'Hold it as long as the lamp is lit: long and short are told apart.'
    : 'Hold it as long as the lamp is lit. A pause begins the next digit; long flashes count the first one.'
})

function press(): void {
  down.value ??= performance.now() // a held key repeats
}
function release(): void {
  if (down.value !== null)
    tapped.value = [...tapped.value, { downMs: down.value, upMs: performance.now() }]
  down.value = null
}
</script>

<template>
  <div class="tapper">
    <template v-if="flashes">
      <button
        class="lamp"
        :class="{ lit: down !== null }"
        @pointerdown.prevent="press"
        @pointerup="release"
        @pointercancel="down = null"
        @keydown.space.prevent="press"
        @keyup.space.prevent="release"
      >
        Tap along with the lamp
      </button>
      <CodeRead
        :pattern="pattern"
        :meaning="meaning"
        :hint="hint"
        :begun="tapped.length > 0"
        @write="emit('begin', `code ${pattern}`)"
        @again="tapped = []"
      >
        <span class="dots" aria-hidden="true">
          <i v-for="(flash, n) in tapped" :key="n" :class="{ long: isLong(flash) }" />
        </span>
      </CodeRead>
    </template>
    <template v-else-if="shown === 'colours'">
      <div class="lamps">
        <button
          v-for="colour in colours"
          :key="colour"
          class="btn colour"
          :class="colour"
          @click="lamps = [...lamps, colour]"
        >
          {{ colour }}
        </button>
      </div>
      <CodeRead
        :pattern="pattern"
        :meaning="meaning"
        :hint="hint"
        :begun="lamps.length > 0"
        @write="emit('begin', `code ${pattern}`)"
        @again="lamps = []"
      />
    </template>
    <CodeChart :codes="codes" :shown="shown" @begin="(line) => emit('begin', line)" />
  </div>
</template>

<style scoped>
.tapper {
  display: grid;
  grid-template-columns: 190px 1fr;
  gap: 14px 18px;
  align-items: center;
}
.lamp {
  height: 110px;
  border-radius: 12px;
  border: 2.5px solid var(--ink);
  background: var(--plate);
  font-weight: 600;
  touch-action: none;
  user-select: none;
}
.lamp.lit {
  background: var(--near);
  color: var(--lead-ink);
}
.dots {
  display: flex;
  gap: 4px;
  min-height: 10px;
}
.dots i {
  width: 9px;
  height: 9px;
  border-radius: 5px;
  background: var(--near);
}
.dots .long {
  width: 26px;
}
.lamps {
  display: grid;
  gap: 6px;
}
.colour {
  border-left-width: 12px;
}
.red {
  border-left-color: var(--lamp-red);
}
.amber {
  border-left-color: var(--lamp-amber);
}
.green {
  border-left-color: var(--lamp-green);
}
.blue {
  border-left-color: var(--lamp-blue);
}
.white {
  border-left-color: var(--lamp-white);
}
.orange {
  border-left-color: var(--lamp-orange);
}
@media (max-width: 800px) {
  .tapper {
    grid-template-columns: 1fr;
  }
}
</style>
