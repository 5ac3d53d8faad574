<script setup lang="ts">
import { useTemplateRef } from 'vue'

/** The field of the bar, with what was understood of it beside it. */
defineProps<{ echo: string; wrong: boolean; writable: boolean; letters: boolean }>()
defineEmits<{ focus: []; escape: [] }>()
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
      maxlength="500"
      placeholder="o2 6.4 co 46 t 118"
      :disabled="!writable"
      @focus="$emit('focus')"
      @keydown.esc="$emit('escape')"
    />
    <span class="echo" data-test="echo">{{ echo }}</span>
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
.echo {
  flex: 0 1 auto;
  max-width: 62%;
  overflow: hidden;
  text-overflow: ellipsis;
  white-space: nowrap;
  font-size: 17px;
  color: var(--field-muted);
}
@media (max-width: 800px) {
  input {
    flex-basis: 90px;
    font-size: 21px;
  }
  .field {
    flex-wrap: wrap;
    align-content: center;
    gap: 0;
    padding: 0 10px;
  }
  .echo {
    flex: 1 0 100%;
    max-width: 100%;
    font-size: 14px;
  }
  .echo:empty {
    display: none;
  }
}
</style>
