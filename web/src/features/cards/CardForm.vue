<script setup lang="ts">
import { NForm } from 'naive-ui'
import { computed, reactive, ref, watch } from 'vue'
import { ApiError, type Schemas } from '@/api/client'
import CardField from './CardField.vue'
import { beginning, changed, type CardValues } from './values'

/**
 * The fields of a card, to be made or changed. `keep` sends what was entered; what is refused is shown at its field, and
 * what somebody else changed meanwhile beside it.
 */
const props = defineProps<{
  sort: Schemas['SortOut']
  values: Record<string, unknown>
  fresh: boolean
  siteName?: string | undefined
  keep: (values: CardValues, reason: string) => Promise<void>
}>()
const before = computed(() => beginning(props.sort.fields, props.values))
const form = reactive<CardValues>({ ...before.value })
const reason = ref('')
const bad = ref<Record<string, string>>({})
const moved = ref<Record<string, string>>({})
const trouble = ref('')
const busy = ref(false)
const saved = ref(false)
const touched = computed(() => Object.keys(changed(before.value, form)).length > 0)

watch(before, (now, was) => {
  // What came from elsewhere is taken where nobody has typed; what was typed stays.
  for (const key of Object.keys(now))
    if (String(form[key] ?? '') === String(was[key] ?? '')) form[key] = now[key] ?? ''
})

async function send(): Promise<void> {
  busy.value = true
  saved.value = false
  try {
    await props.keep(props.fresh ? { ...form } : changed(before.value, form), reason.value)
    bad.value = moved.value = {}
    trouble.value = reason.value = ''
    saved.value = true
  } catch (error) {
    if (!(error instanceof ApiError)) throw error
    bad.value = error.code === 'fields' ? error.fields : {}
    moved.value = error.code === 'card_moved' ? error.fields : {}
    trouble.value = error.message
  } finally {
    busy.value = false
  }
}
</script>

<template>
  <NForm class="form" label-placement="top" @submit.prevent="send">
    <div class="fields">
      <div v-for="field in sort.fields" :key="field.key" :class="field.sort">
        <CardField
          v-model="form[field.key]!"
          :field="field"
          :trouble="bad[field.key]"
          :site-name="siteName"
        />
        <p v-if="moved[field.key]" class="moved">{{ moved[field.key] }}</p>
      </div>
    </div>
    <label v-if="!fresh" class="why">
      Why it changes
      <input v-model="reason" name="reason" maxlength="300" />
    </label>
    <p v-if="trouble" class="bad" role="alert">{{ trouble }}</p>
    <p v-else-if="saved && !touched" role="status">Kept.</p>
    <button type="submit" class="btn strong" :disabled="busy || (!fresh && !touched)">
      {{ fresh ? `Make this ${sort.name.toLowerCase()}` : 'Keep the changes' }}
    </button>
  </NForm>
</template>

<style scoped>
.form {
  display: grid;
  gap: 12px;
  justify-items: start;
}
.fields {
  display: grid;
  grid-template-columns: repeat(2, minmax(0, 1fr));
  gap: 4px 18px;
  width: 100%;
}
.long,
.choices {
  grid-column: 1 / -1;
}
.moved {
  color: var(--near-ink);
  font-weight: 600;
}
.why {
  display: grid;
  gap: 3px;
  width: 100%;
  max-width: 480px;
}
.why input {
  min-height: 44px;
  padding: 0 12px;
  border: 1.5px solid var(--line);
  border-radius: 6px;
  background: var(--plate);
  color: inherit;
  font: inherit;
}
.bad {
  color: var(--out);
  font-weight: 600;
}
@media (max-width: 700px) {
  .fields {
    grid-template-columns: minmax(0, 1fr);
  }
}
</style>
