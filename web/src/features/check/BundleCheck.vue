<script setup lang="ts">
import { computed, ref } from 'vue'
import { checkBundle } from '@/api/calls'
import type { Schemas } from '@/api/client'
import { useAsyncAction } from '@/api/useAsyncAction'
import FileButton from '@/ui/FileButton.vue'

/** A bundle that came from somewhere: does it prove itself? For those who are signed in. */
const { trouble, busy, run } = useAsyncAction()
const found = ref<Schemas['CheckedOut'] | null>(null)
const take = (file: File) =>
  run(async () => {
    found.value = null
    found.value = await checkBundle(file)
  })
const words = computed(() => {
  if (!found.value?.holds) return 'It does not hold.'
  const { entries, sealed, ours } = found.value
  const counted = entries === 1 ? '1 entry' : `${entries} entries`
  if (!sealed)
    return `It holds: ${counted}. Not sealed: the visit was open, or closed before there were seals.`
  return ours
    ? `It holds: ${counted}, sealed by this installation.`
    : `It holds: ${counted}, sealed by another installation: ask whose key it is.`
})
</script>

<template>
  <section>
    <h2>A bundle</h2>
    <p class="muted">
      For those of the firm who are signed in: the file of a visit, read and forgotten.
    </p>
    <FileButton class="btn" accept=".json,application/json" :disabled="busy" @file="take">
      Check a bundle …
    </FileButton>
    <p v-if="trouble" class="bad" role="alert">{{ trouble }}</p>
    <div v-if="found" role="status" :class="{ bad: !found.holds }">
      <p>{{ words }}</p>
      <ul v-if="found.flaws.length">
        <li v-for="flaw in found.flaws" :key="flaw">{{ flaw }}</li>
      </ul>
    </div>
  </section>
</template>

<style scoped>
section {
  display: grid;
  gap: 10px;
  justify-items: start;
}
h2 {
  font-size: 20px;
}
.bad {
  color: var(--out);
  font-weight: 600;
}
</style>
