<script setup lang="ts">
import { useQuery } from '@tanstack/vue-query'
import { computed } from 'vue'
import { useRoute } from 'vue-router'
import { keys } from '@/api/calls'
import type { ApiError, Schemas } from '@/api/client'
import { getMe } from '@/api/people'
import MainHead from '@/parts/head/MainHead.vue'
import TabRow from '@/ui/TabRow.vue'
import { useTitle } from '@/ui/title'

/** What the firm keeps: sites to people and itself, who may sign in, lists in and out, and who did what. */
const TABS = [
  { to: '/kept/site', name: 'Sites' },
  { to: '/kept/unit', name: 'Units' },
  { to: '/kept/contact', name: 'Contacts' },
  { to: '/kept/part', name: 'Parts' },
  { to: '/kept/instrument', name: 'Instruments' },
  { to: '/kept/person', name: 'People' },
  { to: '/kept/firm', name: 'The firm' },
]
const route = useRoute()
const { data: me } = useQuery<Schemas['Me'], ApiError>({ queryKey: keys.me, queryFn: getMe })
const tabs = computed(() => [
  ...TABS,
  ...(me.value?.sees_people ? [{ to: '/kept/roles', name: 'Sign-in and roles' }] : []),
  ...(me.value?.imports ? [{ to: '/kept/lists', name: 'Lists' }] : []),
  ...(me.value?.sees_people ? [{ to: '/kept/audit', name: 'Audit log' }] : []),
])
const here = computed(() => tabs.value.find((tab) => route.path.startsWith(tab.to)))
useTitle(() => here.value?.name ?? 'Kept')
</script>

<template>
  <div>
    <MainHead />
    <TabRow label="What is kept" :tabs="tabs" :open="here?.to ?? ''" />
    <main id="main" tabindex="-1">
      <h1>{{ here?.name ?? 'Kept' }}</h1>
      <RouterView />
    </main>
  </div>
</template>

<style scoped>
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
