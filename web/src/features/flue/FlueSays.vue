<script setup lang="ts">
import type { Schemas } from '@/api/client'

/** What the numbers say, and what they cannot say. */
defineProps<{ flue: Schemas['FlueOut'] }>()
</script>

<template>
  <section class="says" aria-label="What the numbers say">
    <article>
      <h3>What these numbers say</h3>
      <p v-for="line in flue.says" :key="line">{{ line }}</p>
    </article>
    <article>
      <h3>What they cannot say</h3>
      <p v-for="line in flue.cannot_say" :key="line">{{ line }}</p>
    </article>
  </section>
</template>

<style scoped>
.says {
  display: grid;
  grid-template-columns: 1fr 1fr;
  gap: 16px;
}
h3 {
  margin-bottom: 4px;
  font-size: 14px;
  font-weight: 600;
  color: var(--muted);
  text-transform: uppercase;
  letter-spacing: 0.03em;
}
article {
  padding: 12px 14px;
  border: 1.5px solid var(--line);
  border-radius: 7px;
  background: var(--plate);
}
article:first-child {
  border-color: var(--ink);
}
article p + p {
  margin-top: 4px;
}
@media (max-width: 800px) {
  .says {
    grid-template-columns: 1fr;
  }
}
</style>
