<script setup lang="ts">
import { computed, ref } from 'vue'
import type { Schemas } from '@/api/client'
import { digitsOf, isLong, type Flash } from './tapCode'

const props = defineProps<{ codes: Schemas['CodeOut'][]; flashes: boolean }>()
const emit = defineEmits<{ begin: [starter: string] }>()
const tapped = ref<Flash[]>([])
const down = ref<number | null>(null)
const pattern = computed(() => digitsOf(tapped.value))
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
        <p v-else class="muted">Hold it as long as the lamp is lit. A pause begins the next digit; long flashes count the first one.</p>
        <div><button class="btn" :disabled="!pattern" @click="emit('begin', `code ${pattern}`)">Write code {{ pattern }}</button><button class="btn" :disabled="!tapped.length" @click="tapped = []">Again</button></div>
      </div>
    </template>
    <details :open="!flashes"><summary>{{ flashes ? 'The chart, and several codes in store' : 'What the display shows' }}</summary>
      <div class="chart"><button v-for="code in codes" :key="code.pattern" class="btn" @click="emit('begin', `code ${code.pattern}`)"><b>{{ code.pattern }}</b> {{ code.meaning }}</button></div>
    </details>
  </div>
</template>

<style scoped>
.tapper { display: grid; grid-template-columns: 190px 1fr; gap: 14px 18px; align-items: center } details { grid-column: 1 / -1 } summary { min-height: 44px; display: flex; align-items: center; cursor: pointer; color: var(--in) }
.lamp { height: 110px; border-radius: 12px; border: 2.5px solid var(--ink); background: var(--plate); font-weight: 600; touch-action: none; user-select: none } .lamp.lit { background: var(--near); color: #fff }
.read { display: grid; gap: 6px; justify-items: start } .read .btn { justify-self: start } .read div { display: flex; gap: 8px; flex-wrap: wrap } .pattern { font-size: 30px; line-height: 1 } .dots { display: flex; gap: 4px; min-height: 10px } .dots i { width: 9px; height: 9px; border-radius: 5px; background: var(--near) } .dots .long { width: 26px }
.chart { display: grid; grid-template-columns: repeat(auto-fill, minmax(230px, 1fr)); gap: 6px } .chart .btn { text-align: left; padding: 6px 12px; line-height: 1.2 } .chart b { display: inline-block; min-width: 42px }
@media (max-width: 800px) { .tapper { grid-template-columns: 1fr } }
</style>
