<script setup lang="ts">
import type { Schemas } from '@/api/client'
import StateMark from '@/ui/StateMark.vue'

defineProps<{ figures: Schemas['Explained'][] }>()
/** A sentence stands under its figure, a word beside it. */
const isLong = (aside: string) => aside.length > 24
defineEmits<{ why: [figure: Schemas['Explained']] }>()
</script>

<template>
  <ul>
    <li v-for="figure in figures" :key="figure.key">
      <button
        :title="`Why ${figure.shown.text} ${figure.shown.unit}?`"
        @click="$emit('why', figure)"
      >
        <StateMark v-if="figure.state" :state="figure.state" />
        <i v-else />
        <span class="name">{{ figure.name }}</span>
        <b>{{ figure.shown.text }}</b>
        <span class="muted unit">
          {{ figure.shown.unit }}
          <template v-if="figure.half_width">± {{ figure.half_width }}</template>
        </span>
        <span class="muted aside">{{ isLong(figure.aside) ? '' : figure.aside }}</span>
        <span class="ask">why</span>
      </button>
      <p v-if="isLong(figure.aside)" class="says">{{ figure.aside }}</p>
    </li>
  </ul>
</template>

<style scoped>
ul {
  list-style: none;
  margin: 0;
  padding: 0;
}
button {
  display: grid;
  grid-template-columns: 16px minmax(120px, 1fr) auto 84px minmax(0, 150px) auto;
  gap: 10px;
  align-items: baseline;
  width: 100%;
  min-height: 44px;
  border: 0;
  border-bottom: 1px solid var(--line);
  background: none;
  text-align: left;
  padding: 5px 0;
}
button > svg {
  align-self: center;
}
b {
  font-size: 23px;
  font-weight: 600;
  text-align: right;
}
.unit {
  font-size: 15px;
}
.aside {
  font-size: 15px;
  text-align: right;
  white-space: nowrap;
  overflow: hidden;
  text-overflow: ellipsis;
}
.ask {
  color: var(--in);
  text-decoration: underline dotted;
  font-size: 15px;
}
.says {
  padding: 4px 0 8px 26px;
  border-bottom: 1px solid var(--line);
  margin-top: -1px;
}
@media (max-width: 800px) {
  button {
    grid-template-columns: 16px 1fr auto 88px auto;
  }
  .aside {
    display: none;
  }
}
</style>
