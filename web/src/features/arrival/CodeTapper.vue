<script setup lang="ts">
import { computed, ref } from 'vue'
import type { Schemas } from '@/api/client'
import { beatsOf, coloursOf, digitsOf, isLong, type Flash } from './tapCode'

const props = defineProps<{ codes: Schemas['CodeOut'][]; shown: Schemas['ArrivalOut']['code_style'] }>()
const emit = defineEmits<{ begin: [starter: string] }>()
const tapped = ref<Flash[]>([])
const down = ref<number | null>(null)
const lamps = ref<string[]>([])
const COLOURS = ['red', 'amber', 'green', 'blue', 'white', 'orange']
const colours = computed(() => COLOURS.filter((colour) => props.codes.some((code) => code.pattern.split(' ').includes(colour))))
const flashes = computed(() => props.shown === 'flashes' || props.shown === 'beats')
const pattern = computed(() => (props.shown === 'colours' ? coloursOf(lamps.value) : props.shown === 'beats' ? beatsOf(tapped.value) : digitsOf(tapped.value)))
const meaning = computed(() => props.codes.find((code) => code.pattern === pattern.value)?.meaning)

function press(): void {
  down.value ??= performance.now() // a held key repeats
}
function release(): void {
  if (down.value !== null) tapped.value = [...tapped.value, { downMs: down.value, upMs: performance.now() }]
  down.value = null
}
</script>

<template>
  <div class="tapper">
    <template v-if="flashes">
      <button class="lamp" :class="{ lit: down !== null }" @pointerdown.prevent="press" @pointerup="release" @pointercancel="down = null" @keydown.space.prevent="press" @keyup.space.prevent="release">Tap along with the lamp</button>
      <div class="read">
        <b class="pattern">{{ pattern || '–' }}</b>
        <span class="dots" aria-hidden="true"><i v-for="(flash, i) in tapped" :key="i" :class="{ long: isLong(flash) }" /></span>
        <p v-if="pattern" :class="{ muted: !meaning }">{{ meaning ?? 'The chart knows no such code: count it again.' }}</p>
        <p v-else-if="shown === 'beats'" class="muted">Hold it as long as the lamp is lit: long and short are told apart.</p>
        <p v-else class="muted">Hold it as long as the lamp is lit. A pause begins the next digit; long flashes count the first one.</p>
        <div><button class="btn" :disabled="!pattern" @click="emit('begin', `code ${pattern}`)">Write code {{ pattern }}</button><button class="btn" :disabled="!tapped.length" @click="tapped = []">Again</button></div>
      </div>
    </template>
    <template v-else-if="shown === 'colours'">
      <div class="lamps"><button v-for="colour in colours" :key="colour" class="btn colour" :class="colour" @click="lamps = [...lamps, colour]">{{ colour }}</button></div>
      <div class="read">
        <b class="pattern">{{ pattern || '–' }}</b>
        <p v-if="pattern" :class="{ muted: !meaning }">{{ meaning ?? 'The chart knows no such code: count it again.' }}</p>
        <p v-else class="muted">Tap the colour at each flash.</p>
        <div><button class="btn" :disabled="!pattern" @click="emit('begin', `code ${pattern}`)">Write code {{ pattern }}</button><button class="btn" :disabled="!lamps.length" @click="lamps = []">Again</button></div>
      </div>
    </template>
    <details :open="shown === 'digits'"><summary>{{ shown === 'digits' ? 'What the display shows' : 'The chart; several stored codes: commas between, newest first' }}</summary>
      <div class="chart"><button v-for="code in codes" :key="code.pattern" class="btn" @click="emit('begin', `code ${code.pattern}`)"><b>{{ code.pattern }}</b> {{ code.meaning }}</button></div>
    </details>
  </div>
</template>

<style scoped>
.tapper { display: grid; grid-template-columns: 190px 1fr; gap: 14px 18px; align-items: center } details { grid-column: 1 / -1 } summary { min-height: 44px; display: flex; align-items: center; cursor: pointer; color: var(--in) }
.lamp { height: 110px; border-radius: 12px; border: 2.5px solid var(--ink); background: var(--plate); font-weight: 600; touch-action: none; user-select: none } .lamp.lit { background: var(--near); color: #fff }
.read { display: grid; gap: 6px; justify-items: start } .read .btn { justify-self: start } .read div { display: flex; gap: 8px; flex-wrap: wrap } .pattern { font-size: 30px; line-height: 1 } .dots { display: flex; gap: 4px; min-height: 10px } .dots i { width: 9px; height: 9px; border-radius: 5px; background: var(--near) } .dots .long { width: 26px }
.lamps { display: grid; gap: 6px } .colour { border-left-width: 12px } .red { border-left-color: #c0271c } .amber { border-left-color: #e0a11b } .green { border-left-color: #2b8a3e } .blue { border-left-color: #2b5fa6 } .white { border-left-color: #f4f4f0 } .orange { border-left-color: #d9712b }
.chart { display: grid; grid-template-columns: repeat(auto-fill, minmax(230px, 1fr)); gap: 6px } .chart .btn { text-align: left; padding: 6px 12px; line-height: 1.2 } .chart b { display: inline-block; min-width: 42px }
@media (max-width: 800px) { .tapper { grid-template-columns: 1fr } }
</style>
