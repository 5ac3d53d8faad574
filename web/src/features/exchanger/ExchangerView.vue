<script setup lang="ts">
import { keepPreviousData, useQuery } from '@tanstack/vue-query'
import { computed, ref } from 'vue'
import { getExchanger, keys } from '@/api/calls'
import type { ApiError, Schemas } from '@/api/client'
import { useDesk } from '@/parts/desk/desk'
import PhotoStrip from '@/parts/photos/PhotoStrip.vue'
import Card from '@/ui/Card.vue'
import { levelState } from '@/ui/levels'
import StateMark from '@/ui/StateMark.vue'
import EvidencePanel from './EvidencePanel.vue'
import ExchangerDrawing from './ExchangerDrawing.vue'
import FindingPicker from './FindingPicker.vue'
import HowLooked from './HowLooked.vue'
import { lineFor, type Spot } from './line'
import SeenSoFar from './SeenSoFar.vue'

const props = defineProps<{ page: Schemas['VisitPage'] }>()
const desk = useDesk()
const { data, error } = useQuery<Schemas['ExchangerOut'], ApiError>({
  queryKey: computed(() => keys.exchanger(props.page.id, props.page.version)),
  queryFn: () => getExchanger(props.page.id),
  placeholderData: keepPreviousData,
  retry: false,
})
const KEY = {
  in: 'seen, nothing found',
  near: 'a sign',
  out: 'holds or ends its running',
  none: 'not seen yet',
}
const method = ref('mirror')
const size = ref('')
const sure = ref('')
const spot = ref<Spot | null>(null)

function place(starter: string): void {
  if (!spot.value) return
  const how = { size: size.value, method: method.value, sure: sure.value }
  desk.write(lineFor(starter, spot.value, how))
  spot.value = null
}
</script>

<template>
  <p v-if="error" class="none" role="alert">{{ error.message }}</p>
  <p v-else-if="!data" class="none muted">Loading the exchanger …</p>
  <div v-else class="exchanger">
    <Card :title="`${data.name} exchanger`" aside="touch where it is, then what it is">
      <HowLooked
        v-model:method="method"
        v-model:size="size"
        v-model:sure="sure"
        :methods="data.methods"
        :sizes="data.sizes"
        :surenesses="data.surenesses"
      />
      <ExchangerDrawing
        :exchanger="data"
        :chosen="spot"
        :writable="page.writable"
        @spot="spot = $event"
      />
      <FindingPicker
        v-if="spot"
        :spot="spot"
        :findings="data.findings"
        @place="place"
        @nothing="spot = null"
      />
      <p v-else class="muted key">
        <span v-for="(said, state) in KEY" :key="state">
          <StateMark :state="state" :size="13" />
          {{ said }}
        </span>
      </p>
      <ul v-if="data.placed.length" class="placed">
        <li v-for="row in data.placed" :key="row.entry_id">
          <StateMark :state="levelState(row.level)" :size="14" />
          <b>{{ row.text }}</b>
          <span>
            {{ [row.place, row.detail].filter(Boolean).join(' · ') || 'place not written' }}
          </span>
        </li>
      </ul>
    </Card>
    <div class="col">
      <SeenSoFar :exchanger="data" :method="method" :writable="page.writable" />
      <EvidencePanel
        :evidence="data.evidence"
        :writable="page.writable"
        @begin="(line) => desk.begin(line, 'exchanger')"
      />
    </div>
    <PhotoStrip class="wide" :page="page" station="exchanger" />
  </div>
</template>

<style scoped>
.none {
  padding: 30px 20px;
}
.exchanger {
  display: grid;
  grid-template-columns: minmax(0, 7fr) minmax(280px, 5fr);
  gap: 16px;
  padding: 14px 20px 30px;
  align-items: start;
}
.wide {
  grid-column: 1 / -1;
}
.col {
  display: grid;
  gap: 16px;
}
.key {
  display: flex;
  flex-wrap: wrap;
  gap: 4px 14px;
  font-size: 15px;
}
.key span {
  display: inline-flex;
  gap: 6px;
  align-items: center;
  white-space: nowrap;
}
.placed {
  list-style: none;
  margin: 0;
  padding: 0;
}
.placed li {
  display: flex;
  flex-wrap: wrap;
  gap: 4px 9px;
  align-items: center;
  min-height: 36px;
  border-top: 1px solid var(--line);
}
@media (max-width: 800px) {
  .exchanger {
    grid-template-columns: minmax(0, 1fr);
    padding: 10px;
  }
  .wide {
    grid-column: auto;
  }
}
</style>
