<script setup lang="ts">
/** A button that takes a file; the same file can be picked twice in a row. */
defineProps<{ accept: string; disabled?: boolean; capture?: 'environment' }>()
const emit = defineEmits<{ file: [file: File] }>()

function picked(event: Event): void {
  const input = event.target as HTMLInputElement
  const file = input.files?.[0]
  input.value = ''
  if (file) emit('file', file)
}
</script>

<template>
  <label class="file" :class="{ off: disabled }">
    <slot />
    <input
      type="file"
      class="sr"
      :accept="accept"
      :capture="capture"
      :disabled="disabled"
      @change="picked"
    />
  </label>
</template>

<style scoped>
.file {
  position: relative;
  display: inline-flex;
  align-items: center;
  justify-content: center;
  cursor: pointer;
}
.file:focus-within {
  outline: 3px solid var(--in);
  outline-offset: 2px;
}
.off {
  opacity: 0.5;
  cursor: default;
}
</style>
