<script setup lang="ts">
/** How the firm writes days, clock and numbers, on the page and on paper. */
import { useQuery, useQueryClient } from '@tanstack/vue-query'
import { computed } from 'vue'
import { keys } from '@/api/calls'
import type { ApiError, Schemas } from '@/api/client'
import { getMe, writeFormats } from '@/api/people'
import { useAsyncAction } from '@/api/useAsyncAction'
import Card from '@/ui/Card.vue'
import ChipRow from '@/ui/ChipRow.vue'

const CHOICES = [
  {
    part: 'days',
    label: 'Days',
    options: [
      { key: 'day_month', name: '14 January 2026' },
      { key: 'month_day', name: 'January 14, 2026' },
      { key: 'year_first', name: '2026-01-14' },
    ],
  },
  {
    part: 'clock',
    label: 'Clock',
    options: [
      { key: '24', name: '14:05' },
      { key: '12', name: '2:05 PM' },
    ],
  },
  {
    part: 'decimal',
    label: 'Numbers',
    options: [
      { key: 'point', name: '3.5' },
      { key: 'comma', name: '3,5' },
    ],
  },
] as const

const cache = useQueryClient()
const { data: me } = useQuery<Schemas['Me'], ApiError>({ queryKey: keys.me, queryFn: getMe })
const { trouble, busy, run } = useAsyncAction()
const chosen = computed(() => me.value?.formats)

const choose = (part: string, key: string) =>
  run(async () => {
    if (!chosen.value || busy.value) return
    cache.setQueryData(keys.me, await writeFormats({ ...chosen.value, [part]: key }))
    await cache.invalidateQueries({ predicate: (query) => query.queryKey[0] !== keys.me[0] })
  })
</script>

<template>
  <Card v-if="me && chosen" title="Days and numbers" aside="how this firm writes them">
    <p v-if="trouble" class="trouble" role="alert">{{ trouble }}</p>
    <fieldset :disabled="!me.writes_formats">
      <ChipRow
        v-for="row in CHOICES"
        :key="row.part"
        :label="row.label"
        :options="[...row.options]"
        :chosen="chosen[row.part]"
        @choose="(key) => choose(row.part, key)"
      />
    </fieldset>
    <p class="muted">
      On every page and paper from now on; papers that are kept stay as they are. A line is typed
      with a point or a comma, either way.
    </p>
  </Card>
</template>

<style scoped>
fieldset {
  display: grid;
  gap: 8px;
  border: none;
  padding: 0;
  margin: 0;
}
fieldset :deep(.muted) {
  min-width: 76px;
}
.trouble {
  color: var(--out);
}
</style>
