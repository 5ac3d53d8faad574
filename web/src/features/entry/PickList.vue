<script setup lang="ts">
import { NDrawer, NDrawerContent, NInput } from 'naive-ui'
import { computed, ref, watch } from 'vue'
import { levelState } from '@/ui/levels'
import StateMark from '@/ui/StateMark.vue'
import { useWords } from './useWords'

export type ListName = 'done' | 'found' | 'jumpers'
const props = defineProps<{
  visit: number
  list: ListName | null
  station: string
  narrow: boolean
}>()
const emit = defineEmits<{ pick: [line: string]; close: [] }>()
const TITLES = {
  done: 'What was done?',
  found: 'What was found?',
  jumpers: 'Jumpers, leads, tees, taps, safety devices',
}
const { data: words } = useWords(() => props.visit)
const SHOWN = 120 // more than anybody scrolls: the field above narrows it
const filter = ref('')
watch(
  () => props.list,
  () => (filter.value = ''),
)
const rows = computed(() => {
  const all = props.list && words.value ? words.value[props.list] : []
  const kept = all.filter((row) =>
    (row.text + row.line).toLowerCase().includes(filter.value.toLowerCase()),
  )
  return [
    ...kept.filter((row) => row.station === props.station),
    ...kept.filter((row) => row.station !== props.station),
  ]
})
</script>

<template>
  <NDrawer
    :show="list !== null"
    :width="420"
    :height="'75%'"
    :placement="narrow ? 'bottom' : 'right'"
    @update:show="emit('close')"
  >
    <NDrawerContent :title="list ? TITLES[list] : ''" closable>
      <NInput v-model:value="filter" placeholder="Narrow the list" clearable />
      <ul>
        <li v-for="row in rows.slice(0, SHOWN)" :key="row.line">
          <button @click="emit('pick', row.line)">
            <StateMark v-if="row.level" :state="levelState(row.level)" :size="14" />
            <span>{{ row.text }}</span>
            <small>{{ row.line }}</small>
          </button>
        </li>
      </ul>
      <p v-if="rows.length > SHOWN" class="muted">
        {{ rows.length - SHOWN }} more: narrow the list.
      </p>
      <p v-if="!rows.length" class="muted">Nothing of that name. A note can say anything: note …</p>
    </NDrawerContent>
  </NDrawer>
</template>

<style scoped>
ul {
  list-style: none;
  margin: 10px 0 0;
  padding: 0;
}
button {
  display: flex;
  gap: 8px;
  align-items: center;
  width: 100%;
  min-height: 46px;
  border: 0;
  border-bottom: 1px dashed var(--line);
  background: none;
  text-align: left;
}
small {
  margin-left: auto;
  color: var(--muted);
  font-size: 14px;
}
</style>
