<script setup lang="ts">
import { useQuery } from '@tanstack/vue-query'
import { computed, ref } from 'vue'
import { useRouter } from 'vue-router'
import { keys } from '@/api/calls'
import type { ApiError, Schemas } from '@/api/client'
import { bringList, firmKeys, getImports, getSorts } from '@/api/firm'
import { getMe } from '@/api/people'
import { useAsyncAction } from '@/api/useAsyncAction'
import Card from '@/ui/Card.vue'
import ChipRow from '@/ui/ChipRow.vue'
import FileButton from '@/ui/FileButton.vue'
import { momentAt } from '@/ui/moments'

/** Lists in: a table of cards is brought and looked through before anything is done. Lists out: every sort as a table. */
const STATES: Record<string, string> = {
  columns: 'columns to be told',
  looked: 'looked through, not taken in',
  taken: 'taken in',
  undone: 'taken back',
}
const BROUGHT = ['site', 'contact', 'unit', 'part', 'instrument']
const router = useRouter()
const { trouble, busy, run } = useAsyncAction()
const share = ref(0)
const of = ref('unit')
const { data: me } = useQuery<Schemas['Me'], ApiError>({ queryKey: keys.me, queryFn: getMe })
const { data: sorts } = useQuery<Schemas['SortOut'][], ApiError>({
  queryKey: firmKeys.sorts,
  queryFn: getSorts,
})
const { data: lists } = useQuery<Schemas['ImportOut'][], ApiError>({
  queryKey: firmKeys.imports,
  queryFn: getImports,
  refetchOnMount: 'always',
})
const kinds = computed(() =>
  (sorts.value ?? [])
    .filter((sort) => BROUGHT.includes(sort.key))
    .map((sort) => ({ key: sort.key, name: sort.many })),
)
const bring = (file: File) =>
  run(async () => {
    const made = await bringList(of.value, file, (done) => (share.value = done))
    await router.push(`/kept/lists/${made.id}`)
  })
</script>

<template>
  <Card title="Take a list in" aside="CSV, from any program that keeps tables">
    <ChipRow label="Of" :options="kinds" :chosen="of" @choose="(key) => (of = key)" />
    <p class="muted">
      First row: the columns’ names. Nothing is taken in before you have seen what each row would
      do.
    </p>
    <p>
      <FileButton accept=".csv,text/csv,text/plain" :disabled="busy" class="btn" @file="bring">
        {{ busy ? `Reading, ${Math.round(share * 100)} %` : 'Choose the file' }}
      </FileButton>
    </p>
    <p v-if="trouble" class="bad" role="alert">{{ trouble }}</p>
  </Card>
  <Card v-if="lists?.length && me" title="Lists brought before">
    <ul>
      <li v-for="one in lists" :key="one.id">
        <RouterLink :to="`/kept/lists/${one.id}`">
          <b>{{ one.name }}</b>
          <span class="muted">
            {{ one.rows_in_all }} rows · {{ STATES[one.state] }} · {{ one.by }},
            {{ momentAt(one.at, me.zone) }}
          </span>
        </RouterLink>
      </li>
    </ul>
  </Card>
  <Card title="Take a list out" aside="what is in use, in your units">
    <p class="out">
      <a v-for="sort in sorts" :key="sort.key" :href="`/api/cards/${sort.key}/all.csv`" download>
        {{ sort.many }} (CSV)
      </a>
    </p>
  </Card>
</template>

<style scoped>
ul {
  list-style: none;
  margin: 0;
  padding: 0;
}
li a {
  display: grid;
  min-height: 44px;
  padding: 6px 0;
  color: inherit;
}
.out {
  display: flex;
  flex-wrap: wrap;
  gap: 4px 22px;
}
.out a {
  display: inline-flex;
  align-items: center;
  min-height: 44px;
}
.bad {
  color: var(--out);
  font-weight: 600;
}
</style>
