<script setup lang="ts">
import type { Schemas } from '@/api/client'

/** The chart of codes; a touch begins the line. */
defineProps<{ codes: Schemas['CodeOut'][]; shown: string }>()
defineEmits<{ begin: [line: string] }>()
</script>

<template>
  <details :open="shown === 'digits'">
    <summary>
      {{
        shown === 'digits'
          ? 'What the display shows'
          : 'The chart; several stored codes: commas between, newest first'
      }}
    </summary>
    <div class="chart">
      <button
        v-for="code in codes"
        :key="code.pattern"
        class="btn"
        @click="$emit('begin', `code ${code.pattern}`)"
      >
        <b>{{ code.pattern }}</b>
        {{ code.meaning }}
      </button>
    </div>
  </details>
</template>

<style scoped>
details {
  grid-column: 1 / -1;
}
summary {
  display: flex;
  align-items: center;
  min-height: 44px;
  cursor: pointer;
  color: var(--in);
}
.chart {
  display: grid;
  grid-template-columns: repeat(auto-fill, minmax(230px, 1fr));
  gap: 6px;
}
.btn {
  padding: 6px 12px;
  text-align: left;
  line-height: 1.2;
}
b {
  display: inline-block;
  min-width: 42px;
}
</style>
