<script setup lang="ts">
/** A plate on the page with a heading of its own; `aside` stands lighter beside it. */
defineProps<{ title?: string; aside?: string }>()
</script>

<template>
  <section class="card">
    <h2 v-if="title">
      {{ title }}
      <span v-if="aside" class="muted">{{ aside }}</span>
    </h2>
    <slot />
  </section>
</template>

<style scoped>
.card {
  display: grid;
  gap: 8px;
  align-content: start;
  padding: 12px 16px;
  border: 1.5px solid var(--line);
  border-radius: 8px;
  background: var(--plate);
}
h2 {
  font-size: 18px;
  font-weight: 600;
}
h2 span {
  margin-left: 8px;
  font-size: 15px;
  font-weight: 400;
}
</style>
