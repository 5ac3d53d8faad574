<script setup lang="ts">
import type { Schemas } from '@/api/client'
import WireMark from './WireMark.vue'

/** A node of a rung: what a sound circuit shows there, what was read, and whether a lead lies on it. */
defineProps<{ node: Schemas['NodeOut']; lead: 'red' | 'black' | '' }>()
defineEmits<{ touch: [] }>()
</script>

<template>
  <li class="node" :class="[{ odd: node.odd }, lead]">
    <button
      :data-node="node.key"
      :title="node.name"
      :aria-label="`Node ${node.key}, ${node.name}`"
      @click="$emit('touch')"
    >
      {{ node.key }}
    </button>
    <span class="volts">
      <span class="muted">{{ node.expected.text }} {{ node.expected.unit }}</span>
      <b v-if="node.read">
        {{ node.read.text }}
        <small>{{ node.read.unit }}</small>
      </b>
      <WireMark :wires="node.wires" />
    </span>
  </li>
</template>

<style scoped>
.node {
  position: relative;
  z-index: 1;
  display: grid;
  flex: none;
  justify-items: center;
  width: 46px;
  margin: 62px -10px 0;
}
button {
  width: 44px;
  height: 44px;
  padding: 0;
  border: 2.5px solid var(--ink);
  border-radius: 50%;
  background: var(--plate);
  font-size: 15px;
  font-weight: 600;
}
.red button {
  border-color: var(--out);
  box-shadow: 0 0 0 4px color-mix(in srgb, var(--out) 30%, transparent);
}
.black button {
  box-shadow: 0 0 0 4px color-mix(in srgb, var(--ink) 35%, transparent);
}
.volts {
  display: grid;
  justify-items: center;
  min-height: 46px;
  margin-top: 4px;
  font-size: 14px;
  white-space: nowrap;
}
b {
  font-size: 21px;
  line-height: 1.1;
}
.odd b {
  color: var(--out);
}
small {
  font-size: 13px;
  font-weight: 500;
  color: var(--muted);
}
@media (max-width: 800px) {
  .node {
    grid-template-columns: 46px auto;
    gap: 14px;
    align-items: center;
    justify-items: start;
    width: auto;
    margin: -6px 0;
  }
  .volts {
    grid-auto-flow: column;
    gap: 10px;
    align-items: baseline;
    min-height: 0;
    margin: 0;
  }
}
</style>
