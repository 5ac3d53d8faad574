<script setup lang="ts">
import { computed } from 'vue'
import { useRoute } from 'vue-router'
import ScreenHead from '@/parts/head/ScreenHead.vue'

/** What belongs to the firm: its people, and who did what. */
const PAGES = [
  { path: '/firm/people', name: 'People' },
  { path: '/firm/audit', name: 'Audit log' },
]
const route = useRoute()
const page = computed(() => PAGES.find((row) => row.path === route.path) ?? PAGES[0]!)
</script>

<template>
  <div>
    <ScreenHead :name="page.name" line="of the firm" />
    <nav aria-label="Firm">
      <RouterLink
        v-for="row in PAGES"
        :key="row.path"
        :to="row.path"
        class="tab"
        :class="{ on: row === page }"
      >
        {{ row.name }}
      </RouterLink>
    </nav>
    <main id="main" tabindex="-1">
      <RouterView />
    </main>
  </div>
</template>

<style scoped>
nav {
  display: flex;
  gap: 6px;
  max-width: 1040px;
  margin: 0 auto;
  padding: 14px 16px 0;
}
.tab {
  display: grid;
  place-content: center;
  min-height: 44px;
  padding: 0 16px;
  border: 1.5px solid var(--line);
  border-radius: 6px;
  color: var(--ink);
  text-decoration: none;
}
.tab.on {
  background: var(--bar);
  color: var(--bar-ink);
  border-color: var(--bar-line);
  font-weight: 600;
}
main {
  display: grid;
  gap: 16px;
  max-width: 1040px;
  margin: 0 auto;
  padding: 16px 16px 60px;
}
</style>
