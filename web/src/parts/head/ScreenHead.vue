<script setup lang="ts">
import FindAnything from '@/parts/find/FindAnything.vue'
import { useTheme } from '@/ui/theme'
import { useTitle } from '@/ui/title'

const props = defineProps<{ name: string; line: string }>()
useTitle(() => props.name)
const theme = useTheme()
</script>

<template>
  <header>
    <RouterLink to="/" class="back" aria-label="Back to my day">‹</RouterLink>
    <h1 class="name">{{ name }}</h1>
    <span class="line">{{ line }}</span>
    <FindAnything />
    <button class="chip" @click="theme.toggle()">{{ theme.cellar ? 'Daylight' : 'Cellar' }}</button>
  </header>
</template>

<style scoped>
header {
  position: relative;
  display: flex;
  align-items: center;
  gap: 14px;
  min-height: 54px;
  padding: 5px 16px;
  background: var(--bar);
  color: var(--bar-ink);
}
.line {
  color: var(--bar-muted);
  margin-right: auto;
}
.back {
  min-width: 44px;
  min-height: 44px;
  font-size: 30px;
  line-height: 40px;
  color: var(--bar-ink);
  text-decoration: none;
}
.name {
  font-size: 21px;
  font-weight: 600;
}
.chip {
  min-height: 44px;
  padding: 0 14px;
  border: 1px solid var(--bar-line);
  border-radius: 6px;
  background: none;
  color: var(--bar-ink);
}
@media (max-width: 800px) {
  header {
    gap: 6px;
    padding: 5px 8px;
  }
  .line {
    display: none;
  }
  .name {
    margin-right: auto;
    min-width: 0;
    overflow: hidden;
    font-size: 18px;
    text-overflow: ellipsis;
    white-space: nowrap;
  }
  .chip {
    padding: 0 10px;
  }
}
</style>
