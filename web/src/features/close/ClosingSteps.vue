<script setup lang="ts">
import type { Schemas } from '@/api/client'
import StateMark from '@/ui/StateMark.vue'

defineProps<{ steps: Schemas['ClosingStepOut'][]; writable: boolean }>()
defineEmits<{ begin: [starter: string, station: string] }>()
</script>

<template>
  <ol>
    <li
      v-for="(step, i) in steps"
      :key="step.key"
      :class="{ holds: step.holds }"
      :data-step="step.key"
    >
      <h2>
        <i>{{ i + 1 }}</i>
        {{ step.title }}
        <small v-if="step.holds">holds the visit open</small>
      </h2>
      <p v-if="!step.lines.length" class="line">
        <StateMark state="in" />
        {{ step.good }}
      </p>
      <template v-for="line in step.lines" :key="line.text">
        <button
          v-if="line.starter && writable"
          class="line"
          @click="$emit('begin', line.starter, line.station)"
        >
          <StateMark :state="line.state" />
          <span>{{ line.text }}</span>
          <small>{{ line.starter }}</small>
        </button>
        <p v-else class="line">
          <StateMark :state="line.state" />
          <span>{{ line.text }}</span>
        </p>
      </template>
    </li>
  </ol>
</template>

<style scoped>
ol {
  list-style: none;
  margin: 0;
  padding: 0;
  display: grid;
  gap: 12px;
}
li {
  background: var(--plate);
  border: 1.5px solid var(--line);
  border-radius: 8px;
  padding: 10px 16px 6px;
}
.holds {
  border-color: var(--out);
  border-left-width: 7px;
}
h2 {
  display: flex;
  gap: 10px;
  align-items: center;
  font-size: 18px;
  font-weight: 600;
}
h2 i {
  display: grid;
  place-content: center;
  width: 26px;
  height: 26px;
  border-radius: 50%;
  background: var(--steady);
  font: 600 15px var(--font);
}
h2 small {
  color: var(--out);
  font-weight: 500;
  font-size: 15px;
}
.line {
  display: flex;
  gap: 10px;
  align-items: center;
  width: 100%;
  min-height: 44px;
  padding: 4px 0;
  border: 0;
  border-top: 1px dashed var(--line);
  background: none;
  text-align: left;
}
.line small {
  margin-left: auto;
  color: var(--muted);
  font-size: 14px;
  white-space: nowrap;
}
button.line:hover {
  text-decoration: underline;
}
@media (max-width: 800px) {
  .line small {
    display: none;
  }
}
</style>
