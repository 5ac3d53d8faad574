<script setup lang="ts">
import { useBar } from '@/parts/desk/bar'

/** Behind the field on a narrow screen while nothing is entered: what the view offers, else the two lists. */
const emit = defineEmits<{ list: [name: 'done' | 'found'] }>()
const bar = useBar()
</script>

<template>
  <button
    v-for="action in bar.actions"
    :key="action.name"
    type="button"
    class="side"
    @click="action.run"
  >
    {{ action.name }}
  </button>
  <template v-if="!bar.actions.length">
    <button type="button" class="side" @click="emit('list', 'found')">Found</button>
    <button type="button" class="side" @click="emit('list', 'done')">Did</button>
  </template>
</template>

<style scoped src="./entryBar.css"></style>
