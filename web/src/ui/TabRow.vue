<script setup lang="ts">
/** The pages of a screen, each a tab; the one that is open stands out. */
defineProps<{ label: string; tabs: { to: string; name: string }[]; open: string }>()
</script>

<template>
  <nav :aria-label="label">
    <RouterLink
      v-for="tab in tabs"
      :key="tab.to"
      :to="tab.to"
      class="tab"
      :class="{ on: tab.to === open }"
    >
      {{ tab.name }}
    </RouterLink>
  </nav>
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
</style>
