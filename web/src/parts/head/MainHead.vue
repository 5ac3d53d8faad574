<script setup lang="ts">
import { useQuery } from '@tanstack/vue-query'
import { computed } from 'vue'
import { keys } from '@/api/calls'
import type { ApiError, Schemas } from '@/api/client'
import { getMe } from '@/api/people'
import FindAnything from '@/parts/find/FindAnything.vue'

/** The head of the screens that everything begins at: one's day, the board, what the firm keeps. */
const { data: me } = useQuery<Schemas['Me'], ApiError>({ queryKey: keys.me, queryFn: getMe })
const ways = computed(() => [
  { to: '/', name: 'My day' },
  { to: '/board', name: 'Board' },
  { to: '/kept', name: 'Kept' },
  { to: '/shop', name: 'Shop' },
])
</script>

<template>
  <header>
    <b class="name">Havrin</b>
    <span class="firm">{{ me?.firm }}</span>
    <nav aria-label="Havrin">
      <RouterLink v-for="way in ways" :key="way.to" :to="way.to" class="chip">
        {{ way.name }}
      </RouterLink>
    </nav>
    <FindAnything />
    <RouterLink to="/own" class="chip who">
      <span class="full">{{ me?.name }}</span>
      <span class="short">You</span>
    </RouterLink>
  </header>
</template>

<style scoped>
header {
  position: relative;
  display: flex;
  align-items: center;
  gap: 12px;
  min-height: 54px;
  padding: 5px 16px;
  background: var(--bar);
  color: var(--bar-ink);
}
.name {
  font-size: 21px;
  font-weight: 700;
}
.firm {
  color: var(--bar-muted);
  white-space: nowrap;
}
nav {
  display: flex;
  gap: 7px;
  margin-right: auto;
}
.chip {
  display: inline-flex;
  align-items: center;
  min-height: 44px;
  padding: 0 14px;
  border: 1px solid var(--bar-line);
  border-radius: 6px;
  color: var(--bar-ink);
  text-decoration: none;
  white-space: nowrap;
}
.chip.router-link-exact-active,
nav .chip.router-link-active:not([href='/']) {
  border-color: var(--paper);
  background: var(--field);
  color: var(--field-ink);
  font-weight: 600;
}
.short {
  display: none;
}
@media (max-width: 1100px) {
  .firm {
    display: none;
  }
}
@media (max-width: 800px) {
  header {
    flex-wrap: wrap;
    gap: 6px;
    padding: 5px 8px;
  }
  .name {
    margin-right: auto;
  }
  nav {
    order: 5;
    flex-basis: 100%;
    gap: 5px;
    margin: 0;
  }
  nav .chip {
    flex: 1 1 auto;
    justify-content: center;
    padding: 0 8px;
  }
  .full {
    display: none;
  }
  .short {
    display: inline;
  }
}
</style>
