<script setup lang="ts">
import { computed } from 'vue'
import type { Schemas } from '@/api/client'

type Way = NonNullable<Schemas['CloseIn']['left']>

/** How the unit is left: as the tape says, until another way is chosen. */
const props = defineProps<{ ways: Schemas['WayOut'][]; said: string | null }>()
const chosen = defineModel<Way | null>({ required: true })
const way = computed(() => chosen.value ?? props.said)
</script>

<template>
  <h2>How is it left?</h2>
  <div class="ways" role="radiogroup" aria-label="How is it left?">
    <label v-for="row in ways" :key="row.key" :class="{ on: way === row.key }">
      <input
        type="radio"
        name="left"
        class="sr"
        :value="row.key"
        :checked="way === row.key"
        @change="chosen = row.key as Way"
      />
      {{ row.name }}
    </label>
  </div>
</template>

<style scoped>
h2 {
  font-size: 18px;
  font-weight: 600;
}
.ways {
  display: flex;
  flex-wrap: wrap;
  gap: 10px;
}
label {
  position: relative;
  display: inline-flex;
  align-items: center;
  min-height: 48px;
  padding: 0 16px;
  border: 1.5px solid var(--line);
  border-radius: 7px;
  cursor: pointer;
  font-weight: 500;
}
.on {
  border-color: var(--accent);
  box-shadow: inset 0 0 0 1.5px var(--accent);
}
label:focus-within {
  outline: 3px solid var(--in);
}
</style>
