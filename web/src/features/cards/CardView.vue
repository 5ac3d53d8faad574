<script setup lang="ts">
import { useQuery, useQueryClient } from '@tanstack/vue-query'
import { computed } from 'vue'
import { keys } from '@/api/calls'
import { ApiError, type Schemas } from '@/api/client'
import { changeCard, firmKeys, getCard } from '@/api/firm'
import { getMe } from '@/api/people'
import Card from '@/ui/Card.vue'
import CardForm from './CardForm.vue'
import CardHistory from './CardHistory.vue'
import CardEnd from './CardEnd.vue'
import type { CardValues } from './values'

/** One card: what it says, what became of it, and how it ends. */
const props = defineProps<{ sort: Schemas['SortOut']; id: number }>()
const cache = useQueryClient()
const { data: me } = useQuery<Schemas['Me'], ApiError>({ queryKey: keys.me, queryFn: getMe })
const key = computed(() => firmKeys.card(props.sort.key, props.id))
const { data: card, error } = useQuery<Schemas['CardOut'], ApiError>({
  queryKey: key,
  queryFn: () => getCard(props.sort.key, props.id),
  refetchOnMount: 'always',
})
const site = computed(() => Number(card.value?.values['site'] ?? 0))
const { data: where } = useQuery<Schemas['CardOut'], ApiError>({
  queryKey: computed(() => firmKeys.card('site', site.value)),
  queryFn: () => getCard('site', site.value),
  enabled: computed(() => site.value > 0),
})
const seeing = computed(() => {
  const { sort, id } = props
  return { unit: `/units/${id}`, site: `/sites/${id}` }[sort.key] ?? ''
})
async function shown(now: Schemas['CardOut']): Promise<void> {
  cache.setQueryData(firmKeys.card(now.sort, now.id), now)
  await cache.invalidateQueries({ queryKey: firmKeys.sorts })
}
async function keep(values: CardValues, reason: string): Promise<void> {
  try {
    await shown(
      await changeCard(props.sort.key, props.id, { values, reason, seen: card.value!.version }),
    )
  } catch (error) {
    // Somebody else was quicker: their change is shown, and a second save is on top of it.
    if (error instanceof ApiError && error.code === 'card_moved')
      await cache.invalidateQueries({ queryKey: key.value })
    throw error
  }
}
</script>

<template>
  <p v-if="error" class="bad" role="alert">{{ error.message }}</p>
  <template v-if="card && me">
    <p v-if="card.merged_into" class="bad">
      Merged into
      <RouterLink :to="`/kept/${sort.key}/${card.merged_into.id}`">
        {{ card.merged_into.title }}
      </RouterLink>
      .
    </p>
    <p v-else-if="card.retired" class="bad">Retired: it no longer appears in lists.</p>
    <p v-if="seeing || sort.key === 'site'" class="links">
      <RouterLink v-if="seeing" :to="seeing">
        {{ sort.key === 'unit' ? 'Its record' : 'Its units side by side' }}
      </RouterLink>
      <RouterLink v-if="sort.key === 'site'" :to="`/sites/${id}/door`">A new unit here</RouterLink>
      <RouterLink v-if="sort.key === 'site'" :to="`/kept/contact/new?site=${id}`">
        A new contact here
      </RouterLink>
    </p>
    <Card :title="card.title">
      <CardForm
        v-if="sort.may_write"
        :key="id"
        :sort="sort"
        :values="card.values"
        :fresh="false"
        :site-name="where?.title"
        :keep="keep"
      />
      <dl v-else>
        <template v-for="field in sort.fields" :key="field.key">
          <dt>{{ field.label }}</dt>
          <dd>{{ card.values[field.key] || '–' }} {{ field.unit }}</dd>
        </template>
      </dl>
    </Card>
    <div v-if="card.photos.length" class="photos">
      <a
        v-for="photo in card.photos"
        :key="photo"
        :href="`/api/plate-photos/${photo}`"
        target="_blank"
        rel="noopener"
      >
        <img :src="`/api/plate-photos/${photo}`" alt="The plate" />
      </a>
    </div>
    <CardEnd :sort="sort" :card="card" :zone="me.zone" @changed="shown" />
    <CardHistory v-if="card.steps.length" :steps="card.steps" :zone="me.zone" />
  </template>
</template>

<style scoped>
.bad {
  color: var(--out);
  font-weight: 600;
}
.links {
  display: flex;
  flex-wrap: wrap;
  gap: 4px 20px;
}
.links a {
  display: inline-flex;
  align-items: center;
  min-height: 44px;
}
dl {
  display: grid;
  grid-template-columns: 160px minmax(0, 1fr);
  gap: 6px 14px;
}
dt {
  color: var(--muted);
}
dd {
  margin: 0;
}
.photos {
  display: flex;
  flex-wrap: wrap;
  gap: 10px;
}
.photos img {
  max-width: 240px;
  max-height: 180px;
  border-radius: 6px;
}
</style>
