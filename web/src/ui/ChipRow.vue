<script setup lang="ts">
/** One choice out of a few, each a chip; `label` stands before them. */
defineProps<{ label: string; options: { key: string; name: string }[]; chosen: string }>()
defineEmits<{ choose: [key: string] }>()
</script>

<template>
  <div class="row" role="group" :aria-label="label">
    <span class="muted">{{ label }}</span>
    <button
      v-for="option in options"
      :key="option.key"
      type="button"
      class="chip"
      :class="{ on: option.key === chosen }"
      :aria-pressed="option.key === chosen"
      @click="$emit('choose', option.key)"
    >
      {{ option.name }}
    </button>
  </div>
</template>

<style scoped>
.row {
  display: flex;
  flex-wrap: wrap;
  gap: 6px;
  align-items: center;
}
.muted {
  min-width: 44px;
  font-size: 15px;
}
.chip {
  min-height: 44px;
  min-width: 44px;
  padding: 0 11px;
  border: 1.5px solid var(--line);
  border-radius: 6px;
  background: var(--plate);
  font-size: 15px;
}
.on {
  background: var(--bar);
  color: var(--bar-ink);
  border-color: var(--bar-line);
}
@media (max-width: 800px) {
  .row {
    flex-wrap: nowrap;
    overflow-x: auto;
  }
  .chip {
    flex: none;
    white-space: nowrap;
  }
}
</style>
