<script setup lang="ts">
import { useTemplateRef } from 'vue'

/** The field of the bar: a combo box of the lines that what is typed may become. `active`: the option chosen, -1 for none. */
defineProps<{
  wrong: boolean
  writable: boolean
  letters: boolean
  list: string
  open: boolean
  active: number
}>()
defineEmits<{ focus: []; press: [event: KeyboardEvent] }>()
const text = defineModel<string>({ required: true })
const field = useTemplateRef<HTMLInputElement>('field')
defineExpose({ field })
</script>

<template>
  <label class="field" :class="{ wrong }">
    <span class="sr">Write a line on the tape</span>
    <input
      ref="field"
      v-model="text"
      name="line"
      :inputmode="letters ? 'text' : 'none'"
      autocomplete="off"
      autocapitalize="none"
      spellcheck="false"
      role="combobox"
      aria-autocomplete="list"
      :aria-expanded="open"
      :aria-controls="list"
      :aria-activedescendant="active < 0 ? undefined : `${list}-${active}`"
      maxlength="500"
      placeholder="o2 6.4 co 46 t 118"
      :disabled="!writable"
      @focus="$emit('focus')"
      @keydown="$emit('press', $event)"
    />
  </label>
</template>

<style scoped>
.field {
  position: relative;
  flex: 1;
  display: flex;
  align-items: center;
  gap: 12px;
  min-width: 0;
  padding: 0 14px;
  border: 2px solid transparent;
  border-radius: 7px;
  background: var(--field);
  color: var(--field-ink);
}
.field:focus-within {
  border-color: var(--in);
}
.field.wrong {
  border-color: var(--asks-edge);
}
input {
  flex: 1 1 130px;
  min-width: 0;
  border: 0;
  outline: 0;
  background: none;
  color: inherit;
  font: 500 24px var(--font);
}
input::placeholder {
  color: var(--field-hint);
  font-weight: 400;
  opacity: 1;
}
@media (max-width: 800px) {
  input {
    flex-basis: 90px;
    font-size: 21px;
  }
  .field {
    padding: 0 10px;
  }
}
</style>
