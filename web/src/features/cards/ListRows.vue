<script setup lang="ts">
import { keepPreviousData, useQuery, useQueryClient } from '@tanstack/vue-query'
import { computed, ref, watch } from 'vue'
import type { ApiError, Schemas } from '@/api/client'
import { chooseRow, firmKeys, getRows } from '@/api/firm'
import { useAsyncAction } from '@/api/useAsyncAction'
import ChipRow from '@/ui/ChipRow.vue'
import ListPages from './ListPages.vue'

/** The rows of a list by what they would do; what is unclear is chosen row by row. */
const props = defineProps<{ list: Schemas['ImportOut'] }>()
const cache = useQueryClient()
const { trouble, run } = useAsyncAction()
const STATUSES = ['unclear', 'new', 'changed', 'same']
const status = ref(STATUSES.find((one) => props.list.counts[one]) ?? '')
const page = ref(1)
watch(status, () => (page.value = 1))
const chips = computed(() =>
  STATUSES.map((key) => ({ key, name: `${key} ${props.list.counts[key] ?? 0}` })),
)
const { data: rows } = useQuery<Schemas['ImportRows'], ApiError>({
  queryKey: computed(() => firmKeys.rows(props.list.id, status.value, page.value)),
  queryFn: () => getRows(props.list.id, status.value, page.value),
  placeholderData: keepPreviousData,
})
const open = computed(() => props.list.state === 'looked')
const choose = (row: Schemas['ImportRowOut'], choice: string) =>
  run(async () => {
    await chooseRow(props.list.id, row.number, choice)
    await cache.invalidateQueries({ queryKey: firmKeys.list_of(props.list.id) })
  })
const ways = (row: Schemas['ImportRowOut']) => [
  { key: '', name: row.status === 'unclear' ? 'left out' : 'as it says' },
  ...row.candidates.map((card) => ({ key: String(card.id), name: `it is ${card.title}` })),
  ...(row.status === 'unclear' ? [{ key: 'new', name: 'a new one' }] : []),
  ...(row.status === 'unclear' ? [] : [{ key: 'leave', name: 'leave it out' }]),
]
</script>

<template>
  <ChipRow label="Rows" :options="chips" :chosen="status" @choose="(key) => (status = key)" />
  <p v-if="trouble" class="bad" role="alert">{{ trouble }}</p>
  <ol v-if="rows">
    <li v-for="row in rows.rows" :key="row.number">
      <p>
        <span class="muted">row {{ row.number }}</span>
        {{ row.cells.filter(Boolean).join(' · ') }}
      </p>
      <p v-if="row.why" class="why">{{ row.why }}</p>
      <p v-if="row.card && row.status !== 'new'" class="muted">It is {{ row.card.title }}.</p>
      <p v-for="change in row.changes" :key="change.label">
        {{ change.label }}:
        <s v-if="change.before">{{ change.before }}</s>
        → {{ change.after || 'empty' }}
      </p>
      <ChipRow
        v-if="open && row.status !== 'same'"
        label="Take"
        :options="ways(row)"
        :chosen="row.choice"
        @choose="(key) => choose(row, key)"
      />
      <p v-else-if="row.taken" class="muted">taken in</p>
    </li>
  </ol>
  <ListPages v-if="rows" v-model="page" :count="rows.count" :per-page="rows.per_page" />
</template>

<style scoped>
ol {
  list-style: none;
  margin: 0;
  padding: 0;
}
li {
  display: grid;
  gap: 4px;
  padding: 10px 0;
  border-top: 1px solid var(--line);
}
.why {
  color: var(--near-ink);
  font-weight: 600;
}
s {
  color: var(--muted);
}
.bad {
  color: var(--out);
}
</style>
