<script setup lang="ts">
import { useQuery, useQueryClient } from '@tanstack/vue-query'
import { computed } from 'vue'
import type { ApiError, Schemas } from '@/api/client'
import { firmKeys, getImport, lookThrough, takeBack, takeIn } from '@/api/firm'
import { useAsyncAction } from '@/api/useAsyncAction'
import Card from '@/ui/Card.vue'
import ListColumns from './ListColumns.vue'
import ListRows from './ListRows.vue'
import { useWork } from './useWork'
import WorkGoing from './WorkGoing.vue'

/** One list: which column is which field, what each row would do, taken in, taken back. */
const props = defineProps<{ id: string }>()
const cache = useQueryClient()
const { trouble, busy, run } = useAsyncAction()
const { data: list, error } = useQuery<Schemas['ImportOut'], ApiError>({
  queryKey: computed(() => firmKeys.list_of(props.id)),
  queryFn: () => getImport(props.id),
  refetchOnMount: 'always',
})
const { work, going, share, follow, stop } = useWork(() => {
  void cache.invalidateQueries({ queryKey: firmKeys.imports })
  void cache.invalidateQueries({ queryKey: firmKeys.sorts })
})
const ask = (of: Promise<Schemas['WorkOut']>) => run(async () => follow(await of))
const look = (columns: Record<string, string>) =>
  ask(lookThrough(props.id, { columns, work: crypto.randomUUID() }))
const take = () => ask(takeIn(props.id, crypto.randomUUID()))
const back = () => ask(takeBack(props.id, crypto.randomUUID()))
const many = (name: string) => list.value?.counts[name] ?? 0
</script>

<template>
  <p v-if="error" class="bad" role="alert">{{ error.message }}</p>
  <template v-if="list">
    <p>
      <RouterLink to="/kept/lists" class="back">All lists</RouterLink>
      <b>{{ list.name }}</b>
      · {{ list.rows_in_all }} rows
    </p>
    <ListColumns
      v-if="list.state === 'columns' || list.state === 'looked'"
      :list="list"
      :busy="busy || going"
      @look="look"
    />
    <WorkGoing v-if="going" :work="work" :share="share" @stop="stop" />
    <p v-if="work?.state === 'stopped'" role="status">Stopped: nothing of it was kept.</p>
    <p v-if="work?.state === 'failed'" class="bad" role="alert">{{ work.said }}</p>
    <p v-if="trouble" class="bad" role="alert">{{ trouble }}</p>
    <Card v-if="list.state !== 'columns' && !going" title="What it does">
      <p v-if="list.state === 'looked'" class="sum">
        <span>
          {{ many('new') }} new · {{ many('changed') }} changed · {{ many('same') }} the same ·
          {{ many('unclear') }} unclear
        </span>
        <button class="btn strong" :disabled="busy" @click="take">Take it in</button>
        <span class="muted">What is unclear stays out, unless you choose below.</span>
      </p>
      <p v-else-if="list.state === 'taken'" class="sum">
        <span>
          Taken in: {{ many('made') }} made, {{ many('changed') }} changed, {{ many('left') }} left
          alone.
        </span>
        <button class="btn" :disabled="busy" @click="back">Take it back, as one</button>
      </p>
      <p v-else class="sum">
        Taken back: {{ many('retired') }} retired, {{ many('restored') }} as they were,
        {{ many('kept') }} changed since and kept.
      </p>
      <ListRows :list="list" />
    </Card>
  </template>
</template>

<style scoped>
.back {
  display: inline-flex;
  align-items: center;
  min-height: 44px;
  margin-right: 16px;
}
.sum {
  display: flex;
  flex-wrap: wrap;
  gap: 8px 18px;
  align-items: center;
}
.bad {
  color: var(--out);
  font-weight: 600;
}
</style>
