<script setup lang="ts">
import { useQuery, useQueryClient } from '@tanstack/vue-query'
import { computed } from 'vue'
import { useRoute, useRouter } from 'vue-router'
import type { ApiError, Schemas } from '@/api/client'
import { firmKeys, getCard, makeCard } from '@/api/firm'
import Card from '@/ui/Card.vue'
import CardForm from './CardForm.vue'
import type { CardValues } from './values'

/** A card that is not there yet. Its id is made once: sent twice it is made once. */
const props = defineProps<{ sort: Schemas['SortOut'] }>()
const route = useRoute()
const router = useRouter()
const cache = useQueryClient()
const id = crypto.randomUUID()
const site = computed(() => Number(route.query['site'] ?? 0))
const { data: where } = useQuery<Schemas['CardOut'], ApiError>({
  queryKey: computed(() => firmKeys.card('site', site.value)),
  queryFn: () => getCard('site', site.value),
  enabled: computed(() => site.value > 0),
})
async function keep(values: CardValues, reason: string): Promise<void> {
  const made = await makeCard(props.sort.key, { id, values, reason })
  await cache.invalidateQueries({ queryKey: firmKeys.sorts })
  await router.replace(`/kept/${props.sort.key}/${made.id}`)
}
</script>

<template>
  <Card :title="`New ${sort.name.toLowerCase()}`">
    <CardForm
      v-if="!site || where"
      :sort="sort"
      :values="site ? { site } : {}"
      fresh
      :site-name="where?.title"
      :keep="keep"
    />
  </Card>
</template>
