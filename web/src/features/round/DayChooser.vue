<script setup lang="ts">
import { plusDays } from '@/ui/days'

/** The day before, today, the day after, or any. */
defineProps<{ day: string; today: string }>()
defineEmits<{ choose: [day: string] }>()
const value = (event: Event) => (event.target as HTMLInputElement).value
</script>

<template>
  <div class="days" role="group" aria-label="Day">
    <button class="btn" aria-label="The day before" @click="$emit('choose', plusDays(day, -1))">
      ‹
    </button>
    <button class="btn" :disabled="day === today" @click="$emit('choose', today)">Today</button>
    <button class="btn" aria-label="The day after" @click="$emit('choose', plusDays(day, 1))">
      ›
    </button>
    <input
      type="date"
      aria-label="Another day"
      :value="day"
      @change="value($event) && $emit('choose', value($event))"
    />
  </div>
</template>

<style scoped>
.days {
  display: flex;
  gap: 6px;
}
.btn {
  min-width: 44px;
}
input {
  min-height: 44px;
  padding: 0 10px;
  border: 1.5px solid var(--line);
  border-radius: 6px;
  background: var(--plate);
  color: inherit;
  font: inherit;
  color-scheme: inherit;
}
</style>
