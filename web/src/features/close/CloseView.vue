<script setup lang="ts">
import { keepPreviousData, useQuery } from '@tanstack/vue-query'
import { computed } from 'vue'
import { getClosing, keys } from '@/api/calls'
import type { ApiError, Schemas } from '@/api/client'
import { getMe } from '@/api/people'
import { useDesk } from '@/parts/desk/desk'
import PhotoStrip from '@/parts/photos/PhotoStrip.vue'
import Card from '@/ui/Card.vue'
import { levelState } from '@/ui/levels'
import { momentAt } from '@/ui/moments'
import StateMark from '@/ui/StateMark.vue'
import AmendPanel from './AmendPanel.vue'
import ClosingSteps from './ClosingSteps.vue'
import EarlierVisits from './EarlierVisits.vue'
import PaperPreview from './PaperPreview.vue'
import PapersCard from './PapersCard.vue'
import PlanPanel from './PlanPanel.vue'
import SignForm from './SignForm.vue'

const props = defineProps<{ page: Schemas['VisitPage'] }>()
const desk = useDesk()
const { data: me } = useQuery<Schemas['Me'], ApiError>({ queryKey: keys.me, queryFn: getMe })
const {
  data: closing,
  error,
  refetch,
} = useQuery<Schemas['ClosingOut'], ApiError>({
  queryKey: computed(() => keys.closing(props.page.id, props.page.version)),
  queryFn: () => getClosing(props.page.id),
  placeholderData: keepPreviousData,
})
</script>

<template>
  <div class="close">
    <section v-if="page.close.closed_at" class="done wide">
      <h2>
        <StateMark :state="levelState(page.standing.level)" :size="20" />
        Closed: {{ page.standing.title }}
      </h2>
      <p>
        Signed {{ page.close.signed_by }}, {{ momentAt(page.close.closed_at, page.zone) }}. The tape
        takes no more entries.
      </p>
      <p v-if="page.close.customer_words" class="quote">{{ page.close.customer_words }}</p>
    </section>
    <p v-if="error" class="refused wide" role="alert">{{ error.message }}</p>
    <p v-else-if="!closing" class="muted wide">Looking up what is still to do …</p>
    <div v-else class="col">
      <ClosingSteps
        v-if="!page.close.closed_at"
        :steps="closing.steps"
        :writable="page.writable"
        @begin="(line, where) => desk.begin(line, where)"
      />
      <SignForm
        v-if="page.writable"
        :page="page"
        :me="me"
        :obstacles="closing.at_signature"
        :held="closing.steps.some((step) => step.holds)"
        :waiting="desk.waiting.value"
      />
      <Card v-if="page.close.changes.length" title="What changed, and what lay between">
        <p v-for="line in page.close.changes" :key="line">{{ line }}</p>
      </Card>
    </div>
    <div v-if="closing || error" class="col">
      <PaperPreview v-if="!page.close.closed_at" :page="page" />
      <PapersCard :page="page" :scheme="closing?.words ?? ''" @page="desk.replace" />
      <PlanPanel
        v-if="closing"
        :closing="closing"
        :page="page"
        @planned="refetch()"
        @begin="(line) => desk.begin(line)"
      />
    </div>
    <AmendPanel
      v-if="page.close.closed_at"
      class="wide"
      :page="page"
      :may-write="me?.writes_visits ?? false"
      @page="desk.replace"
    />
    <PhotoStrip class="wide" :page="page" station="" />
    <EarlierVisits v-if="page.earlier.length" class="wide" :visits="page.earlier" />
  </div>
</template>

<style scoped>
.close {
  flex: 1 0 auto;
  display: grid;
  grid-template-columns: repeat(2, minmax(0, 1fr));
  gap: 18px 28px;
  padding: 16px 20px 30px;
  align-content: start;
}
.wide {
  grid-column: 1 / -1;
}
h2 {
  display: flex;
  gap: 10px;
  align-items: center;
  margin-bottom: 4px;
  font-size: 18px;
  font-weight: 600;
}
.col {
  display: grid;
  grid-template-columns: minmax(0, 1fr);
  gap: 12px;
  align-content: start;
}
.refused {
  color: var(--out);
  font-weight: 600;
}
.quote {
  margin-top: 8px;
  padding-left: 12px;
  border-left: 4px solid var(--line);
}
@media (max-width: 800px) {
  .close {
    grid-template-columns: minmax(0, 1fr);
    padding: 12px;
  }
  .wide {
    grid-column: auto;
  }
}
</style>
