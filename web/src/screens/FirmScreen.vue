<script setup lang="ts">
import { computed } from 'vue'
import { useRoute } from 'vue-router'
import ScreenHead from '@/parts/head/ScreenHead.vue'
import TabRow from '@/ui/TabRow.vue'

/** What belongs to the firm: its people, and who did what. */
const PAGES = [
  { to: '/firm/people', name: 'People' },
  { to: '/firm/audit', name: 'Audit log' },
]
const route = useRoute()
const page = computed(() => PAGES.find((row) => row.to === route.path) ?? PAGES[0]!)
</script>

<template>
  <div>
    <ScreenHead :name="page.name" line="of the firm" />
    <TabRow label="Firm" :tabs="PAGES" :open="page.to" />
    <main id="main" tabindex="-1">
      <RouterView />
    </main>
  </div>
</template>

<style scoped>
main {
  display: grid;
  gap: 16px;
  max-width: 1040px;
  margin: 0 auto;
  padding: 16px 16px 60px;
}
</style>
