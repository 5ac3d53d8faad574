<script setup lang="ts">
import { computed, ref } from 'vue'
import type { Schemas } from '@/api/client'
import { levelState } from '@/ui/levels'
import { shortDay } from '@/ui/moments'
import StateMark from '@/ui/StateMark.vue'

/** Every visit of a unit, newest first. */
const props = defineProps<{ visits: Schemas['RecordVisit'][] }>()
const FIRST = 5
const all = ref(false)
const shown = computed(() => (all.value ? props.visits : props.visits.slice(0, FIRST)))
</script>

<template>
  <ol class="time">
    <li v-for="visit in shown" :key="visit.id">
      <StateMark :state="visit.closed ? levelState(visit.level) : 'none'" :size="18" />
      <div>
        <RouterLink :to="`/visits/${visit.id}/unit`">
          <b>{{ shortDay(visit.day) }}</b>
          {{ visit.reason }}, {{ visit.technician }}
        </RouterLink>
        <span class="title">{{ visit.title }}{{ visit.closed ? '' : ' (open)' }}</span>
        <p v-if="visit.complaint">“{{ visit.complaint }}”</p>
        <p v-if="visit.words">{{ visit.words }}</p>
        <p v-if="visit.done.length" class="muted">Done: {{ visit.done.join(' · ') }}</p>
        <p v-for="line in visit.advised" :key="line">
          Advised:
          <b>{{ line }}</b>
        </p>
        <p v-for="line in visit.refused" :key="line" class="refused">Refused: {{ line }}</p>
        <div v-if="visit.photos.length" class="photos">
          <a
            v-for="photo in visit.photos"
            :key="photo"
            :href="`/api/photos/${photo}`"
            target="_blank"
            rel="noopener"
          >
            <img :src="`/api/photos/${photo}?small=true`" alt="photo of the visit" loading="lazy" />
          </a>
        </div>
      </div>
    </li>
  </ol>
  <button v-if="visits.length > FIRST" class="btn more" @click="all = !all">
    {{ all ? 'Fewer' : `All ${visits.length} visits` }}
  </button>
</template>

<style scoped>
.more {
  justify-self: start;
}
.time {
  margin: 0;
  padding: 0;
  border-left: 2.5px solid var(--line);
  list-style: none;
}
li {
  display: grid;
  grid-template-columns: 30px 1fr;
  margin-left: -10px;
  padding: 6px 0 10px;
}
li > svg {
  margin-top: 3px;
  background: var(--paper);
}
a {
  color: inherit;
}
@media (max-width: 800px), (pointer: coarse) {
  a {
    display: inline-flex;
    flex-wrap: wrap;
    gap: 0 6px;
    align-items: center;
    min-height: 44px;
  }
}
.title {
  margin-left: 12px;
  font-weight: 600;
}
p {
  margin-top: 1px;
}
.refused {
  color: var(--near-ink);
  font-weight: 500;
}
.photos {
  display: flex;
  gap: 8px;
  margin-top: 6px;
}
img {
  display: block;
  height: 84px;
  border-radius: 5px;
}
</style>
