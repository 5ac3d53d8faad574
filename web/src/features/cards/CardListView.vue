<script setup lang="ts">
import { keepPreviousData, useQuery } from '@tanstack/vue-query'
import { refDebounced } from '@vueuse/core'
import { computed, ref, watch } from 'vue'
import type { ApiError, Schemas } from '@/api/client'
import { firmKeys, getCards } from '@/api/firm'
import ListPages from './ListPages.vue'

/** The cards of one sort, found by some letters; those that are retired apart. */
const props = defineProps<{ sort: Schemas['SortOut'] }>()
const TYPING_MS = 150
const typed = ref('')
const page = ref(1)
const retired = ref(false)
const asked = refDebounced(typed, TYPING_MS)
watch([asked, retired, () => props.sort.key], () => (page.value = 1))
const { data: list, error } = useQuery<Schemas['CardList'], ApiError>({
  queryKey: computed(() =>
    firmKeys.list(props.sort.key, { q: asked.value, page: page.value, retired: retired.value }),
  ),
  queryFn: () =>
    getCards(props.sort.key, { q: asked.value, page: page.value, retired: retired.value }),
  placeholderData: keepPreviousData,
  refetchOnMount: 'always',
})
</script>

<template>
  <div class="list">
    <div class="top">
      <label>
        <span class="hidden">Find among {{ sort.many.toLowerCase() }}</span>
        <input v-model="typed" type="search" name="card_find" placeholder="some letters …" />
      </label>
      <label v-if="sort.may_retire" class="retired">
        <input v-model="retired" type="checkbox" />
        retired
      </label>
      <RouterLink v-if="sort.may_make" :to="`/kept/${sort.key}/new`" class="btn strong">
        New {{ sort.name.toLowerCase() }}
      </RouterLink>
    </div>
    <p v-if="error" class="bad" role="alert">{{ error.message }}</p>
    <p v-else-if="list && !list.count" class="muted">
      {{ typed ? 'None has these letters.' : `No ${sort.many.toLowerCase()} yet.` }}
    </p>
    <ul v-if="list?.count">
      <li v-for="row in list.rows" :key="row.id">
        <RouterLink :to="`/kept/${sort.key}/${row.id}`">
          <b>{{ row.title }}</b>
          <span class="muted">{{ row.line }}</span>
        </RouterLink>
      </li>
    </ul>
    <ListPages v-if="list" v-model="page" :count="list.count" :per-page="list.per_page" />
  </div>
</template>

<style scoped>
.list {
  display: grid;
  gap: 12px;
}
.top {
  display: flex;
  flex-wrap: wrap;
  gap: 10px 18px;
  align-items: center;
}
.top input[type='search'] {
  min-height: 44px;
  width: 260px;
  padding: 0 12px;
  border: 1.5px solid var(--line);
  border-radius: 6px;
  background: var(--plate);
  color: inherit;
  font: inherit;
}
.hidden {
  position: absolute;
  width: 1px;
  height: 1px;
  overflow: hidden;
  clip-path: inset(50%);
}
.retired {
  display: flex;
  gap: 8px;
  align-items: center;
  min-height: 44px;
}
.retired input {
  width: 22px;
  height: 22px;
}
.btn {
  display: inline-grid;
  place-content: center;
  text-decoration: none;
}
ul {
  list-style: none;
  margin: 0;
  padding: 0;
  border: 1.5px solid var(--line);
  border-radius: 8px;
  background: var(--plate);
}
li + li {
  border-top: 1px solid var(--line);
}
li a {
  display: flex;
  flex-wrap: wrap;
  gap: 0 14px;
  align-items: baseline;
  min-height: 44px;
  padding: 10px 16px;
  color: inherit;
  text-decoration: none;
}
li a:hover b {
  text-decoration: underline;
}
.bad {
  color: var(--out);
}
</style>
