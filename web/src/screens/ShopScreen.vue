<script setup lang="ts">
import { computed } from 'vue'
import { useRoute } from 'vue-router'
import FindAnything from '@/parts/find/FindAnything.vue'
import { useTitle } from '@/ui/title'

const route = useRoute()
const SORTS = [
  { path: '/shop/model', name: 'Models' },
  { path: '/shop/kind', name: 'Kinds of units' },
  { path: '/shop/circuit', name: 'Circuits' },
  { path: '/shop/walk', name: 'Walks' },
  { path: '/shop/rules', name: 'House rules' },
]
const sort = computed(() => SORTS.find((row) => row.path === route.path) ?? SORTS[0]!)
useTitle(() => `Shop, ${sort.value.name.toLowerCase()}`)
</script>

<template>
  <div class="shop">
    <header>
      <RouterLink to="/" class="back" aria-label="Back to the round">‹</RouterLink>
      <h1>Shop</h1>
      <nav aria-label="Shop">
        <RouterLink
          v-for="row in SORTS"
          :key="row.path"
          :to="row.path"
          class="tab"
          :class="{ on: row === sort }"
        >
          {{ row.name }}
        </RouterLink>
      </nav>
      <FindAnything />
    </header>
    <RouterView />
  </div>
</template>

<style scoped>
.shop {
  display: grid;
  grid-template-rows: 54px 1fr;
  grid-template-columns: 300px minmax(0, 1fr);
  height: calc(100dvh - var(--strip));
}
header {
  position: relative;
  grid-column: 1 / -1;
  display: flex;
  gap: 6px;
  align-items: center;
  padding: 0 16px;
  background: var(--bar);
  color: var(--bar-ink);
}
header h1 {
  font-size: 20px;
  margin-right: 14px;
}
nav {
  display: flex;
  gap: 6px;
  margin-right: auto;
}
.back {
  color: inherit;
  text-decoration: none;
  font-size: 30px;
  min-width: 44px;
  min-height: 44px;
  line-height: 40px;
  text-align: center;
}
.tab {
  color: var(--bar-muted);
  text-decoration: none;
  min-height: 44px;
  display: grid;
  place-content: center;
  padding: 0 14px;
  border-radius: 6px;
}
.tab.on {
  background: var(--plate);
  color: var(--ink);
  font-weight: 600;
}
@media (max-width: 800px) {
  .shop {
    grid-template-rows: auto auto 1fr;
    grid-template-columns: minmax(0, 1fr);
  }
  header {
    flex-wrap: wrap;
    padding: 0 6px;
    font-size: 15px;
  }
  nav {
    order: 5;
    flex: 1 0 100%;
    overflow-x: auto;
  }
  .tab {
    padding: 0 8px;
  }
  header h1 {
    position: absolute;
    width: 1px;
    height: 1px;
    overflow: hidden;
    clip-path: inset(50%);
  }
}
</style>
