<script setup lang="ts">
/** A labelled field of a form; what is said under it helps to fill it in. */
defineProps<{
  label: string
  name: string
  type?: string
  autocomplete?: string
  hint?: string
  maxlength?: number
}>()
const value = defineModel<string>({ required: true })
</script>

<template>
  <label>
    {{ label }}
    <input
      v-model="value"
      :name="name"
      :type="type ?? 'text'"
      :autocomplete="autocomplete ?? 'off'"
      :maxlength="maxlength ?? 150"
      autocapitalize="none"
      spellcheck="false"
    />
    <span v-if="hint" class="muted">{{ hint }}</span>
  </label>
</template>

<style scoped>
label {
  display: grid;
  align-content: start;
  gap: 4px;
  font-weight: 500;
}
input {
  width: 100%;
  min-height: 44px;
  padding: 0 12px;
  border: 1.5px solid var(--line);
  border-radius: 6px;
  background: var(--plate);
  color: inherit;
  font: inherit;
}
span {
  font-size: 15px;
  font-weight: 400;
}
</style>
