<script setup lang="ts">
import { computed } from 'vue'
import HouseRules from '@/features/house/HouseRules.vue'
import CircuitEditor from '@/features/shop/CircuitEditor.vue'
import KindEditor from '@/features/shop/KindEditor.vue'
import ModelEditor from '@/features/shop/ModelEditor.vue'
import { useTitle } from '@/ui/title'

const props = defineProps<{ sort: string }>()
const SORTS = [{ key: 'model', name: 'Models' }, { key: 'kind', name: 'Kinds of units' }, { key: 'circuit', name: 'Circuits' }, { key: 'rules', name: 'House rules' }]
const editor = computed(() => ({ circuit: CircuitEditor, kind: KindEditor, model: ModelEditor, rules: HouseRules })[props.sort] ?? ModelEditor)
useTitle(() => `Shop, ${(SORTS.find((row) => row.key === props.sort)?.name ?? 'Models').toLowerCase()}`)
</script>

<template>
  <div class="shop">
    <header><RouterLink to="/" class="back" aria-label="Back to the round">‹</RouterLink><h1>Shop</h1><RouterLink v-for="s in SORTS" :key="s.key" :to="`/shop/${s.key}`" class="tab" :class="{ on: s.key === sort }">{{ s.name }}</RouterLink></header>
    <component :is="editor" :key="sort" />
  </div>
</template>

<style scoped>
.shop { display: grid; grid-template: 54px 1fr / 300px minmax(0, 1fr); height: 100dvh } header { grid-column: 1 / -1; display: flex; gap: 6px; align-items: center; padding: 0 16px; background: var(--bar); color: var(--bar-ink) } header h1 { font-size: 20px; margin-right: 14px } .back { color: inherit; text-decoration: none; font-size: 30px; min-width: 44px; text-align: center }
.tab { color: var(--bar-muted); text-decoration: none; min-height: 44px; display: grid; place-content: center; padding: 0 14px; border-radius: 6px } .tab.on { background: var(--plate); color: var(--ink); font-weight: 600 }
@media (max-width: 800px) { .shop { grid-template: 50px auto 1fr / minmax(0, 1fr) } header { padding: 0 6px; font-size: 15px } .tab { padding: 0 8px } header h1 { display: none } }
</style>
