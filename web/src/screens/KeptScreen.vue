<script setup lang="ts">
import { useQuery } from '@tanstack/vue-query'
import { computed } from 'vue'
import { useRoute } from 'vue-router'
import { keys } from '@/api/calls'
import type { ApiError, Schemas } from '@/api/client'
import { getMe } from '@/api/people'
import MainHead from '@/parts/head/MainHead.vue'
import { useTitle } from '@/ui/title'

/** What the firm keeps: sites, contacts, units, parts, instruments, people, itself; and lists in and out. */
const TABS = [
  { key: 'site', name: 'Sites' },
  { key: 'unit', name: 'Units' },
  { key: 'contact', name: 'Contacts' },
  { key: 'part', name: 'Parts' },
  { key: 'instrument', name: 'Instruments' },
  { key: 'person', name: 'People' },
  { key: 'firm', name: 'The firm' },
]
const route = useRoute()
const { data: me } = useQuery<Schemas['Me'], ApiError>({ queryKey: keys.me, queryFn: getMe })
const tabs = computed(() => [
  ...TABS,
  ...(me.value?.imports ? [{ key: 'lists', name: 'Lists' }] : []),
])
const here = computed(() => tabs.value.find((tab) => route.path.startsWith(`/kept/${tab.key}`)))
useTitle(() => here.value?.name ?? 'Kept')
</script>

<template>
  <div>
    <MainHead />
    <nav aria-label="What is kept">
      <RouterLink
        v-for="tab in tabs"
        :key="tab.key"
        :to="`/kept/${tab.key}`"
        class="tab"
        :class="{ on: tab === here }"
      >
        {{ tab.name }}
      </RouterLink>
    </nav>
    <main id="main" tabindex="-1">
      <h1>{{ here?.name ?? 'Kept' }}</h1>
      <RouterView />
    </main>
  </div>
</template>

<style scoped>
nav {
  display: flex;
  flex-wrap: wrap;
  gap: 6px;
  max-width: 1040px;
  margin: 0 auto;
  padding: 14px 16px 0;
}
.tab {
  display: grid;
  place-content: center;
  min-height: 44px;
  padding: 0 14px;
  border: 1.5px solid var(--line);
  border-radius: 6px;
  color: var(--ink);
  text-decoration: none;
}
.tab.on {
  border-color: var(--bar-line);
  background: var(--bar);
  color: var(--bar-ink);
  font-weight: 600;
}
main {
  display: grid;
  gap: 14px;
  max-width: 1040px;
  margin: 0 auto;
  padding: 14px 16px 60px;
}
h1 {
  font-size: 24px;
  font-weight: 600;
}
</style>
