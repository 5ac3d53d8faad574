<script setup lang="ts">
import type { Schemas } from '@/api/client'

/** A plate as it was taken, and what may stand on it: each is taken by a touch of whoever sees the picture beside it. */
const props = defineProps<{
  address: string
  read: Schemas['PlateRead'] | null
  models: Schemas['DoorModel'][]
}>()
defineEmits<{ confirm: [field: string, value: string] }>()
const named = (field: string | number, value: string) =>
  field === 'model' ? (props.models.find((one) => one.key === value)?.name ?? value) : value
</script>

<template>
  <div class="plate">
    <img :src="address" alt="The plate as it was taken" />
    <div v-if="read">
      <p v-if="!Object.keys(read.proposed).length" class="muted">Nothing could be read on it.</p>
      <p v-for="(value, field) in read.proposed" :key="field">
        <button type="button" class="btn" @click="$emit('confirm', String(field), value)">
          {{ named(field, value) }}
        </button>
        <span class="muted">as it seems to read; touch it if the picture agrees</span>
      </p>
    </div>
  </div>
</template>

<style scoped>
.plate {
  display: flex;
  flex-wrap: wrap;
  gap: 12px;
}
.plate img {
  max-width: 260px;
  max-height: 220px;
  border-radius: 6px;
}
p + p {
  margin-top: 6px;
}
</style>
