<script setup lang="ts">
import type { Schemas } from '@/api/client'
import Card from '@/ui/Card.vue'
import { momentAt } from '@/ui/moments'

/** Who changed what, when and why, newest first. */
defineProps<{ steps: Schemas['CardStepOut'][]; zone: string }>()
</script>

<template>
  <Card title="What became of it">
    <ol>
      <li v-for="step in steps" :key="step.number">
        <p>
          <b>{{ step.who || 'As it was found' }}</b>
          <span class="muted">
            {{ momentAt(step.at, zone) }}{{ step.reason ? `: ${step.reason}` : '' }}
          </span>
        </p>
        <p v-for="change in step.changes" :key="change.label" class="change">
          {{ change.label }}:
          <template v-if="change.before">
            <s>{{ change.before }}</s>
            →
          </template>
          {{ change.after || 'empty' }}
        </p>
      </li>
    </ol>
  </Card>
</template>

<style scoped>
ol {
  display: grid;
  gap: 10px;
  list-style: none;
  margin: 0;
  padding: 0;
}
li + li {
  padding-top: 10px;
  border-top: 1px solid var(--line);
}
p {
  display: flex;
  flex-wrap: wrap;
  gap: 0 10px;
}
.change {
  gap: 0 6px;
  overflow-wrap: anywhere;
}
s {
  color: var(--muted);
}
</style>
