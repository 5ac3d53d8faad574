<script setup lang="ts">
import { NFormItem, NInput } from 'naive-ui'
import { computed } from 'vue'
import type { Schemas } from '@/api/client'
import PickSite from './PickSite.vue'
import type { CardValue } from './values'

/** One field of a card; what is wrong with it stands at it. */
const props = defineProps<{
  field: Schemas['FieldOut']
  trouble?: string | undefined
  siteName?: string | undefined
}>()
const value = defineModel<CardValue>({ required: true })
const id = computed(() => `card-${props.field.key}`)
const text = computed(() => (value.value === null ? '' : String(value.value)))
const picked = computed(() => (Array.isArray(value.value) ? value.value : []))
const label = computed(() => props.field.label + (props.field.unit ? `, ${props.field.unit}` : ''))
const numeric = computed(() => ['number', 'whole', 'price'].includes(props.field.sort))
const of = (event: Event) => (event.target as HTMLInputElement).value
function toggle(key: string): void {
  value.value = picked.value.includes(key)
    ? picked.value.filter((one) => one !== key)
    : [...picked.value, key]
}
</script>

<template>
  <NFormItem
    :show-feedback="!!trouble || !!field.hint"
    :feedback="trouble || field.hint"
    :validation-status="trouble ? 'error' : undefined"
    :show-require-mark="field.required"
    :label="label"
    :label-props="{ for: id }"
  >
    <PickSite
      v-if="field.sort === 'site'"
      :id="id"
      :chosen="value === null ? null : Number(value)"
      :name="siteName ?? ''"
      @pick="(site) => (value = site)"
    />
    <select
      v-else-if="field.sort === 'choice'"
      :id="id"
      :name="field.key"
      :value="text"
      :aria-invalid="!!trouble"
      @change="value = of($event)"
    >
      <option v-if="!field.required || !text" value="">–</option>
      <option v-for="one in field.choices" :key="one.key" :value="one.key">{{ one.name }}</option>
    </select>
    <div
      v-else-if="field.sort === 'choices'"
      :id="id"
      class="many"
      role="group"
      :aria-label="label"
    >
      <label v-for="one in field.choices" :key="one.key">
        <input type="checkbox" :checked="picked.includes(one.key)" @change="toggle(one.key)" />
        {{ one.name }}
      </label>
    </div>
    <input
      v-else-if="field.sort === 'date'"
      :id="id"
      type="date"
      :name="field.key"
      :value="text"
      :aria-invalid="!!trouble"
      @change="value = of($event)"
    />
    <NInput
      v-else
      :value="text"
      :type="field.sort === 'long' ? 'textarea' : 'text'"
      :autosize="field.sort === 'long' ? { minRows: 2, maxRows: 6 } : false"
      :maxlength="numeric ? 20 : field.most"
      placeholder=""
      :input-props="
        {
          id,
          name: field.key,
          autocomplete: 'off',
          inputmode: numeric ? 'decimal' : undefined,
          'aria-invalid': !!trouble,
        } as never
      "
      @update:value="(given: string) => (value = given)"
    />
  </NFormItem>
</template>

<style scoped>
select,
input[type='date'] {
  width: 100%;
  min-height: 44px;
  padding: 0 10px;
  border: 1.5px solid var(--line);
  border-radius: 6px;
  background: var(--plate);
  color: inherit;
  font: inherit;
  color-scheme: inherit;
}
[aria-invalid='true'] {
  border-color: var(--out);
}
.many {
  display: flex;
  flex-wrap: wrap;
  gap: 0 16px;
  max-height: 180px;
  overflow-y: auto;
}
.many label {
  display: flex;
  gap: 8px;
  align-items: center;
  min-height: 44px;
}
.many input {
  width: 22px;
  height: 22px;
}
:deep(.n-form-item-feedback__line) {
  font-size: 15px;
  color: var(--muted);
}
:deep(.n-form-item-feedback--error .n-form-item-feedback__line) {
  color: var(--out);
  font-weight: 600;
}
:deep(.n-form-item-label) {
  font-size: 15px;
  font-weight: 500;
}
</style>
