<script setup lang="ts">
import { useQuery } from '@tanstack/vue-query'
import { getUnit, keys } from '@/api/calls'
import type { ApiError, Schemas } from '@/api/client'
import PlanVisit from '@/features/record/PlanVisit.vue'
import ReadingsAcross from '@/features/record/ReadingsAcross.vue'
import ShareLinks from '@/features/record/ShareLinks.vue'
import TimeLine from '@/features/record/TimeLine.vue'
import ScreenHead from '@/parts/head/ScreenHead.vue'

const props = defineProps<{ id: number }>()
const {
  data: unit,
  error,
  isPending,
  refetch,
} = useQuery<Schemas['UnitRecord'], ApiError>({
  queryKey: keys.unit(props.id),
  queryFn: () => getUnit(props.id),
  refetchOnMount: 'always',
})
</script>

<template>
  <div class="page">
    <ScreenHead :name="unit?.name ?? 'Unit'" :line="unit?.line ?? ''" />
    <main id="main" tabindex="-1">
      <p v-if="isPending" class="muted">Loading the record …</p>
      <div v-else-if="error" class="trouble" role="alert">
        <b>{{ error.message }}</b>
        <button class="btn" @click="refetch()">Try again</button>
      </div>
      <template v-else-if="unit">
        <p class="muted wide">
          <RouterLink :to="`/sites/${unit.site_id}`">{{ unit.site }}</RouterLink>
          {{ unit.serial ? ` · no. ${unit.serial}` : '' }} · {{ unit.visits.length }} visits
          <RouterLink :to="`/kept/unit/${unit.id}`" class="card">Its card</RouterLink>
        </p>
        <p v-if="unit.merged_into_id" class="wide gone">
          Merged into another:
          <RouterLink :to="`/units/${unit.merged_into_id}`">its record</RouterLink>
        </p>
        <p v-else-if="unit.retired" class="wide gone">Retired: no visit is planned here.</p>
        <p v-if="unit.vulnerable" class="wide there">There: {{ unit.vulnerable }}</p>
        <div class="col">
          <PlanVisit
            v-if="!unit.retired"
            :unit="unit.id"
            :zone="unit.zone"
            :reasons="unit.reasons"
            @planned="refetch()"
          />
          <p v-if="!unit.visits.length">Nobody has written on this unit yet.</p>
          <TimeLine v-else :visits="unit.visits" />
        </div>
        <div class="col">
          <ReadingsAcross v-if="unit.rows.length" :unit="unit" />
          <ShareLinks :unit="unit.id" :zone="unit.zone" :links="unit.links" @changed="refetch()" />
        </div>
      </template>
    </main>
  </div>
</template>

<style scoped>
main {
  display: grid;
  grid-template-columns: minmax(0, 2fr) minmax(0, 3fr);
  gap: 14px 26px;
  padding: 10px 16px 60px;
}
.col {
  display: grid;
  grid-template-columns: minmax(0, 1fr);
  gap: 14px;
  align-content: start;
}
.wide {
  grid-column: 1 / -1;
}
@media (max-width: 1000px) {
  main {
    grid-template-columns: minmax(0, 1fr);
  }
}
.gone {
  color: var(--out);
  font-weight: 600;
}
.there {
  color: var(--near-ink);
  font-weight: 500;
}
.card {
  margin-left: 16px;
}
p a {
  display: inline-flex;
  align-items: center;
  min-height: 44px;
}
.trouble {
  display: flex;
  gap: 16px;
  align-items: center;
  color: var(--out);
}
</style>
