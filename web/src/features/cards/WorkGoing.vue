<script setup lang="ts">
import type { Schemas } from '@/api/client'

/** How far long work is, with a way to stop it. */
defineProps<{ work: Schemas['WorkOut'] | undefined; share: number | null }>()
defineEmits<{ stop: [] }>()
</script>

<template>
  <p class="going" role="status">
    <progress :value="share ?? undefined" max="1" aria-label="How far it is"></progress>
    <span>
      {{ work?.state === 'running' ? `${work.done} of ${work.steps} rows` : 'waits for its turn' }}
    </span>
    <button class="btn" :disabled="work?.stop_asked" @click="$emit('stop')">
      {{ work?.stop_asked ? 'Stopping …' : 'Stop' }}
    </button>
  </p>
</template>

<style scoped>
.going {
  display: flex;
  flex-wrap: wrap;
  gap: 14px;
  align-items: center;
}
progress {
  width: 260px;
  height: 14px;
  accent-color: var(--in);
}
</style>
