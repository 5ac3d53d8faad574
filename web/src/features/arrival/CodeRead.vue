<script setup lang="ts">
/** The code as it was tapped, what the chart says of it, and what can be done with it. */
defineProps<{ pattern: string; meaning?: string; hint: string; begun: boolean }>()
defineEmits<{ write: []; again: [] }>()
</script>

<template>
  <div class="read">
    <b class="pattern">{{ pattern || '–' }}</b>
    <slot />
    <p v-if="pattern" :class="{ muted: !meaning }">
      {{ meaning ?? 'The chart knows no such code: count it again.' }}
    </p>
    <p v-else class="muted">{{ hint }}</p>
    <div>
      <button class="btn" :disabled="!pattern" @click="$emit('write')">
        Write code {{ pattern }}
      </button>
      <button class="btn" :disabled="!begun" @click="$emit('again')">Again</button>
    </div>
  </div>
</template>

<style scoped>
.read {
  display: grid;
  gap: 6px;
  justify-items: start;
}
.read div {
  display: flex;
  gap: 8px;
  flex-wrap: wrap;
}
.pattern {
  font-size: 30px;
  line-height: 1;
}
</style>
