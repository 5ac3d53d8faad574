<script setup lang="ts">
import { computed } from 'vue'
import type { Schemas } from '@/api/client'
import { useBar } from '@/parts/desk/bar'
import FileButton from '@/ui/FileButton.vue'
import { PICTURES } from '@/ui/pictures'

/** What stands behind the field of the bar where there is room: instruments in hand, the lists, a photo, Write. */
const props = defineProps<{ instruments: Schemas['InstrumentOut'][]; writes: boolean }>()
const emit = defineEmits<{ list: [name: 'done' | 'found' | 'jumpers']; photo: [file: File] }>()
const bar = useBar()
const held = computed(() => props.instruments.filter((one) => one.in_hand))
const names = computed(() => held.value.map((one) => one.name).join(', '))
const inHand = computed(() => {
  const [first, ...more] = held.value
  if (!first) return 'Instruments …'
  return more.length ? `${first.name} + ${more.length}` : first.name
})
</script>

<template>
  <button
    type="button"
    class="side held"
    :class="{ warn: held.some((one) => !one.in_date) }"
    :title="names"
    :aria-label="`${inHand}, instruments in hand: ${names || 'not chosen today'}`"
    @click="bar.choosesInstruments = true"
  >
    {{ inHand }}
  </button>
  <button type="button" class="side" @click="emit('list', 'done')">Did…</button>
  <button type="button" class="side" @click="emit('list', 'found')">Found…</button>
  <button type="button" class="side" @click="emit('list', 'jumpers')">Jumper…</button>
  <FileButton class="side" :accept="PICTURES" @file="(file) => emit('photo', file)">
    Photo
  </FileButton>
  <button type="submit" class="side go" :disabled="!writes">Write</button>
</template>

<style scoped src="./entryBar.css"></style>
