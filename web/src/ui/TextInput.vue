<script setup lang="ts">
import { ref } from 'vue'

/** A field that hands over what was typed when it is left; until then no answer from elsewhere takes a letter away. */
defineProps<{ value: string | number | null | undefined }>()
const emit = defineEmits<{ change: [event: Event] }>()
const typed = ref<string | null>(null)

function hand(event: Event): void {
  emit('change', event)
  typed.value = null
}
</script>

<template>
  <input
    :value="typed ?? value ?? ''"
    @input="typed = ($event.target as HTMLInputElement).value"
    @change="hand"
    @blur="typed = null"
  />
</template>
