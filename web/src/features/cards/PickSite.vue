<script setup lang="ts">
import { keepPreviousData, useQuery } from '@tanstack/vue-query'
import { refDebounced } from '@vueuse/core'
import { computed, ref, watch } from 'vue'
import type { ApiError, Schemas } from '@/api/client'
import { firmKeys, getCards } from '@/api/firm'

/** A site, found by some letters of its name or street. */
const props = defineProps<{ id: string; chosen: number | null; name: string }>()
const emit = defineEmits<{ pick: [site: number | null] }>()
const TYPING_MS = 120
const typed = ref(props.name)
const open = ref(false)
watch(
  () => props.name,
  (name) => (typed.value = name),
)
const asked = refDebounced(typed, TYPING_MS)
const { data: found } = useQuery<Schemas['CardList'], ApiError>({
  queryKey: computed(() => firmKeys.list('site', { q: asked.value.trim() })),
  queryFn: () => getCards('site', { q: asked.value.trim() }),
  enabled: open,
  placeholderData: keepPreviousData,
})
const rows = computed(() => found.value?.rows.slice(0, 8) ?? [])
function pick(row: Schemas['CardRow']): void {
  typed.value = row.title
  open.value = false
  emit('pick', row.id)
}
function type(): void {
  open.value = true
  emit('pick', null)
}
</script>

<template>
  <div class="pick">
    <input
      :id="id"
      v-model="typed"
      name="site"
      autocomplete="off"
      @input="type"
      @focus="open = chosen === null"
    />
    <ul v-if="open && rows.length" aria-label="Sites">
      <li v-for="row in rows" :key="row.id">
        <button type="button" @click="pick(row)">
          <b>{{ row.title }}</b>
          <span class="muted">{{ row.line }}</span>
        </button>
      </li>
    </ul>
  </div>
</template>

<style scoped>
.pick {
  width: 100%;
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
ul {
  list-style: none;
  margin: 4px 0 0;
  padding: 0;
  border: 1.5px solid var(--line);
  border-radius: 6px;
}
button {
  display: grid;
  width: 100%;
  min-height: 44px;
  padding: 6px 12px;
  border: 0;
  background: none;
  color: inherit;
  font: inherit;
  text-align: left;
  cursor: pointer;
}
</style>
