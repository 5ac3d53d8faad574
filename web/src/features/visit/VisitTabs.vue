<script setup lang="ts">
import { computed, nextTick, useTemplateRef, watch } from 'vue'
import type { Schemas } from '@/api/client'
import { VIEWS, type ViewName } from './keyboard'

const props = defineProps<{ page: Schemas['VisitPage']; view: string }>()
defineEmits<{ go: [view: ViewName]; keys: [] }>()
const bar = useTemplateRef<HTMLElement>('bar')
const tabs = computed(() =>
  VIEWS.filter((tab) => tab.view !== 'exchanger' || props.page.has_exchanger),
)
const side = computed(() =>
  props.page.paths.some((path) => path.key === 'water') ? 'Water' : 'Air',
)

/** On a narrow screen the tabs are wider than it: the one in hand is brought into sight. */
function showChosen(): void {
  const chosen = bar.value?.querySelector('.on')
  chosen?.scrollIntoView({ inline: 'center', block: 'nearest' })
}
watch(
  () => props.view,
  () => void nextTick(showChosen),
  { immediate: true },
)
</script>

<template>
  <nav ref="bar" class="tabs" aria-label="Views">
    <button
      v-for="tab in tabs"
      :key="tab.view"
      :class="{ on: view === tab.view }"
      :aria-current="view === tab.view ? 'page' : undefined"
      @click="$emit('go', tab.view)"
    >
      {{ tab.view === 'air' ? side : tab.name }}
      <kbd>{{ tab.key }}</kbd>
    </button>
    <button class="keys" aria-label="Show the keys" @click="$emit('keys')">?</button>
  </nav>
</template>

<style scoped>
.tabs {
  grid-area: tabs;
  display: flex;
  align-items: stretch;
  gap: 4px;
  padding: 0 12px;
  border-bottom: 1.5px solid var(--line);
}
button {
  position: relative;
  border: 0;
  background: none;
  padding: 0 9px;
  white-space: nowrap;
  font-size: 17px;
  font-weight: 500;
  color: var(--muted);
}
.on {
  color: var(--ink);
  font-weight: 600;
  box-shadow: inset 0 -4px var(--accent);
}
button::after {
  content: '';
  position: absolute;
  inset: -3px 0;
}
kbd {
  font: 13px var(--font);
  border: 1px solid var(--line);
  border-radius: 4px;
  padding: 1px 5px;
  margin-left: 4px;
  background: var(--plate);
}
.keys {
  min-width: 44px;
  margin-left: auto;
}
@media (max-width: 1400px) {
  .tabs {
    gap: 0;
    padding: 0 8px;
  }
  button {
    padding: 0 7px;
  }
  kbd {
    padding: 0 3px;
    margin-left: 2px;
  }
  .keys {
    min-width: 32px;
    padding: 0;
  }
}
@media (max-width: 800px) {
  .tabs {
    overflow-x: auto;
  }
  kbd {
    display: none;
  }
  button {
    flex: 1 0 auto;
    padding: 0 6px;
  }
  .keys {
    flex: 0 0 44px;
    min-width: 44px;
  }
}
</style>
