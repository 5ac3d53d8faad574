<script setup lang="ts">
import TextInput from '@/ui/TextInput.vue'
import type { Named } from './useDocument'

/** A document's name and key, and what can be done with the whole of it. */
const props = defineProps<{
  document: Named
  shipped: boolean
  kept: boolean
  keepable: boolean
}>()
const why = defineModel<string>('why', { required: true })
const emit = defineEmits<{ change: [document: Named]; copy: []; keep: []; save: [] }>()
const set = (field: 'name' | 'key', event: Event) =>
  emit('change', { ...props.document, [field]: (event.target as HTMLInputElement).value })
</script>

<template>
  <div class="head">
    <label>
      Name
      <TextInput :value="document.name" :disabled="shipped" @change="set('name', $event)" />
    </label>
    <label>
      Key
      <TextInput :value="document.key" :disabled="shipped" @change="set('key', $event)" />
    </label>
    <button class="btn" :class="{ strong: shipped }" @click="emit('copy')">
      Copy it, to change
    </button>
    <template v-if="!shipped">
      <label v-if="!kept">
        Why it is changed
        <input v-model="why" maxlength="300" placeholder="kept with this version" />
      </label>
      <button class="btn strong" :disabled="!keepable" @click="emit('keep')">
        {{ kept ? 'Kept' : 'Keep it' }}
      </button>
    </template>
    <button class="btn" @click="emit('save')">Save as JSON</button>
  </div>
</template>

<style scoped>
.head {
  display: flex;
  flex-wrap: wrap;
  gap: 10px 14px;
  align-items: end;
}
label {
  display: grid;
  gap: 2px;
  font-weight: 500;
}
label:first-child {
  flex: 1;
  min-width: 220px;
}
input {
  width: 100%;
}
</style>
