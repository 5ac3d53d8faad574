<script setup lang="ts">
import type { Schemas } from '@/api/client'
import FileButton from '@/ui/FileButton.vue'
import { PICTURES } from '@/ui/pictures'
import HeldKey from './HeldKey.vue'

/** What stands behind the field of the bar where there is room: instruments in hand, the lists, a photo, Write. */
defineProps<{ instruments: Schemas['InstrumentOut'][]; writes: boolean }>()
const emit = defineEmits<{ list: [name: 'done' | 'found' | 'jumpers']; photo: [file: File] }>()
</script>

<template>
  <HeldKey :instruments="instruments" />
  <button type="button" class="side" @click="emit('list', 'done')">Did…</button>
  <button type="button" class="side" @click="emit('list', 'found')">Found…</button>
  <button type="button" class="side" @click="emit('list', 'jumpers')">Jumper…</button>
  <FileButton class="side" :accept="PICTURES" @file="(file) => emit('photo', file)">
    Photo
  </FileButton>
  <button type="submit" class="side go" :disabled="!writes">Write</button>
</template>

<style scoped src="./entryBar.css"></style>
