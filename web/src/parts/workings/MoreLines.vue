<script setup lang="ts">
/** Beginnings of lines that no station offers; touched, one stands in the bar. */
defineProps<{ lines: string[]; writable: boolean }>()
defineEmits<{ begin: [line: string] }>()
</script>

<template>
  <div v-if="lines.length" class="more" role="group" aria-label="More to write down">
    <span class="muted">More to write down</span>
    <button
      v-for="line in lines"
      :key="line"
      class="btn"
      :disabled="!writable"
      @click="$emit('begin', line)"
    >
      {{ line.trim() }}
    </button>
  </div>
</template>

<style scoped>
.more {
  display: flex;
  flex-wrap: wrap;
  gap: 8px;
  align-items: center;
}
</style>
