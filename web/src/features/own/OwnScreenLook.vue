<script setup lang="ts">
import { useQueryClient } from '@tanstack/vue-query'
import { keys } from '@/api/calls'
import type { Schemas } from '@/api/client'
import { prefer } from '@/api/people'
import { useAsyncAction } from '@/api/useAsyncAction'
import Card from '@/ui/Card.vue'
import ChipRow from '@/ui/ChipRow.vue'
import { useTheme } from '@/ui/theme'

/** How one's own screen looks: its units, daylight or cellar. */
defineProps<{ me: Schemas['Me'] }>()
const cache = useQueryClient()
const theme = useTheme()
const { trouble, run } = useAsyncAction()
const UNITS = [
  { key: 'us', name: 'US' },
  { key: 'metric', name: 'metric' },
]
const LOOKS = [
  { key: 'daylight', name: 'Daylight' },
  { key: 'cellar', name: 'Cellar' },
]
const choose = (key: string) =>
  run(async () => {
    cache.setQueryData(keys.me, await prefer({ unit_system: key === 'us' ? 'us' : 'metric' }))
    await cache.invalidateQueries()
  })
</script>

<template>
  <Card title="Your screen">
    <ChipRow label="Units" :options="UNITS" :chosen="me.unit_system" @choose="choose" />
    <ChipRow
      label="Light"
      :options="LOOKS"
      :chosen="theme.cellar ? 'cellar' : 'daylight'"
      @choose="(key) => (key === 'cellar') !== theme.cellar && theme.toggle()"
    />
    <p v-if="trouble" class="bad" role="alert">{{ trouble }}</p>
  </Card>
</template>

<style scoped>
.bad {
  color: var(--out);
}
</style>
