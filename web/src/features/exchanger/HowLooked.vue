<script setup lang="ts">
import { computed } from 'vue'
import ChipRow from '@/ui/ChipRow.vue'

/** By what it was looked at, how large the finding is, how sure one is of it. */
const props = defineProps<{ methods: string[]; sizes: string[]; surenesses: string[] }>()
const method = defineModel<string>('method', { required: true })
const size = defineModel<string>('size', { required: true })
const sure = defineModel<string>('sure', { required: true })
const named = (keys: string[], none = '') => keys.map((key) => ({ key, name: key || none }))
const methods = computed(() => named(props.methods))
const sizes = computed(() => named(props.sizes, 'none'))
const surenesses = computed(() => named(['', ...props.surenesses], 'not said'))
</script>

<template>
  <div class="how">
    <ChipRow
      label="Looked at by"
      :options="methods"
      :chosen="method"
      @choose="(key) => (method = key)"
    />
    <ChipRow label="Size" :options="sizes" :chosen="size" @choose="(key) => (size = key)" />
    <ChipRow
      label="How sure"
      :options="surenesses"
      :chosen="sure"
      @choose="(key) => (sure = key)"
    />
  </div>
</template>

<style scoped>
.how {
  display: grid;
  gap: 6px;
  min-width: 0;
}
.how :deep(.muted) {
  flex: none;
  width: 84px;
}
</style>
