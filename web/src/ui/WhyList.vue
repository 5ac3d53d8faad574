<script setup lang="ts">
import type { Schemas } from '@/api/client'

defineProps<{ figure: Schemas['Explained'] }>()
</script>

<template>
  <article class="why">
    <h3>
      {{ figure.name }}
      <b>{{ figure.shown.text }} {{ figure.shown.unit }}</b>
      <span v-if="figure.half_width" class="muted">± {{ figure.half_width }}</span>
    </h3>
    <p class="formula">{{ figure.formula }}</p>
    <dl>
      <template v-for="input in figure.inputs" :key="input.name">
        <dt>{{ input.name }}</dt>
        <dd>{{ input.shown.text }} {{ input.shown.unit }}</dd>
      </template>
    </dl>
    <p class="muted">
      Source: {{ figure.source }}.
      <template v-if="figure.half_width">± follows from the instruments’ stated accuracy.</template>
    </p>
    <p v-if="figure.note">{{ figure.note }}</p>
  </article>
</template>

<style scoped>
.why {
  display: grid;
  gap: 8px;
}
.formula {
  padding: 10px 12px;
  background: var(--paper);
  border-left: 4px solid var(--air);
  border-radius: 4px;
  font-weight: 500;
}
dl {
  display: grid;
  grid-template-columns: auto 1fr;
  gap: 2px 16px;
  margin: 0;
}
dt {
  color: var(--muted);
}
dd {
  margin: 0;
  font-weight: 600;
}
</style>
