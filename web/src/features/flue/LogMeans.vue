<script setup lang="ts">
import type { Schemas } from '@/api/client'

/** The means of the chosen stretch, and the touch that writes them. */
defineProps<{ means: Schemas['MeanOut'][]; target: string; writable: boolean; busy: boolean }>()
defineEmits<{ write: [] }>()
</script>

<template>
  <div class="means">
    <span v-for="mean in means" :key="mean.quantity">
      <span class="muted">{{ mean.name }}</span>
      <b>{{ mean.mean.text }}</b>
      {{ mean.mean.unit }}
      <span class="muted">{{ mean.scatter }}</span>
    </span>
    <button v-if="writable" class="btn strong" :disabled="busy" @click="$emit('write')">
      Write on the tape, {{ target }}
    </button>
  </div>
</template>

<style scoped>
.means {
  display: flex;
  flex-wrap: wrap;
  gap: 8px 22px;
  align-items: center;
  font-size: 15px;
}
b {
  margin: 0 4px;
  font-size: 19px;
}
.btn {
  margin-left: auto;
  padding: 0 14px;
}
@media (max-width: 800px) {
  .btn {
    margin-left: 0;
    width: 100%;
  }
}
</style>
