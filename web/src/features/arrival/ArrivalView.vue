<script setup lang="ts">
import { useQuery } from '@tanstack/vue-query'
import { computed } from 'vue'
import { getArrival, keys } from '@/api/calls'
import type { ApiError, Schemas } from '@/api/client'
import { useDesk } from '@/parts/desk/desk'
import Card from '@/ui/Card.vue'
import BeforeHere from './BeforeHere.vue'
import CodeCard from './CodeCard.vue'
import FirstMinute from './FirstMinute.vue'
import FirstYou from './FirstYou.vue'
import LockoutAxis from './LockoutAxis.vue'

const props = defineProps<{ page: Schemas['VisitPage'] }>()
const desk = useDesk()
const { data, error } = useQuery<Schemas['ArrivalOut'], ApiError>({
  queryKey: computed(() => keys.arrival(props.page.id, props.page.version)),
  queryFn: () => getArrival(props.page.id),
  placeholderData: (before) => before,
})
const LOCKOUTS = [
  ['Outdoors', 'outdoor '],
  ['Gas off above', 'gas lockout '],
  ['Heat pump off below', 'pump lockout '],
] as const

function supplyOf(neighbour: Schemas['NeighbourOut']): string {
  if (!neighbour.supply) return 'supply never read'
  const { text, unit } = neighbour.supply
  return `supply ${text} ${unit} with all running, ${neighbour.day}`
}
</script>

<template>
  <p v-if="error" class="none" role="alert">{{ error.message }}</p>
  <p v-else-if="!data" class="none muted">Loading what is known of this unit …</p>
  <div v-else class="arrival">
    <div class="col">
      <FirstYou :page="page" :gas-smell="data.gas_smell" />
      <CodeCard v-if="data.code_first && data.codes.length" :arrival="data" />
      <FirstMinute :triage="data.triage" :writable="page.writable" />
    </div>
    <div class="col">
      <BeforeHere :page="page" :arrival="data" />
      <Card v-if="data.axis" title="Gas and heat pump by outdoor temperature">
        <LockoutAxis :axis="data.axis" />
        <div class="pair">
          <button
            v-for="[label, word] in LOCKOUTS"
            :key="label"
            class="btn"
            :disabled="!page.writable"
            @click="desk.begin(word)"
          >
            {{ label }}
          </button>
        </div>
      </Card>
      <p>
        <RouterLink :to="`/sites/${page.site_id}`" class="site">
          All units of {{ page.site }}, side by side
        </RouterLink>
      </p>
      <Card v-if="data.neighbours.length" title="On the same gas line" :aside="data.gas_line">
        <p v-for="neighbour in data.neighbours" :key="neighbour.unit">
          <b>{{ neighbour.unit }}</b>
          {{ supplyOf(neighbour) }}
        </p>
        <p class="muted">
          Read the supply with all of them burning: what one unit lacks, its neighbour takes.
        </p>
      </Card>
      <CodeCard v-if="!data.code_first && data.codes.length" :arrival="data" />
    </div>
    <RouterLink class="wide btn" :to="{ name: 'visit-walk', params: { id: page.id } }">
      Walk through the unit, part by part
    </RouterLink>
  </div>
</template>

<style scoped>
.arrival {
  display: grid;
  grid-template-columns: repeat(2, minmax(0, 1fr));
  gap: 14px;
  padding: 14px 20px 30px;
}
.none {
  padding: 30px 20px;
}
.col {
  display: grid;
  gap: 14px;
  align-content: start;
}
.wide {
  grid-column: 1 / -1;
}
.site {
  display: inline-flex;
  align-items: center;
  min-height: 44px;
  font-weight: 500;
}
.pair {
  display: flex;
  gap: 10px;
  flex-wrap: wrap;
}
@media (max-width: 800px) {
  .arrival {
    grid-template-columns: minmax(0, 1fr);
    padding: 10px;
  }
}
</style>
