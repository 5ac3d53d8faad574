<script setup lang="ts">
import { computed, nextTick, onUnmounted, watch } from 'vue'
import type { Schemas } from '@/api/client'
import { useBar } from '@/parts/desk/bar'
import { useDesk } from '@/parts/desk/desk'
import ChipRow from '@/ui/ChipRow.vue'
import { useWalk } from './useWalk'
import WalkStop from './WalkStop.vue'

/** A walk through the unit in the house's order: each answer is a line of the tape. */
const props = defineProps<{ page: Schemas['VisitPage'] }>()
const desk = useDesk()
const bar = useBar()
const walking = useWalk(() => props.page)
const { walks, walk, current, skipped, left, error } = walking
const total = computed(() => walk.value?.stops.length ?? 0)
const place = computed(() => {
  const at = walk.value?.stops.findIndex((stop) => stop.key === current.value?.key) ?? -1
  return at < 0 ? '' : `${at + 1} of ${total.value}`
})
const told = computed(() =>
  [
    place.value,
    left.value ? `${left.value} to go` : 'all answered',
    walk.value?.own ? 'house order' : '',
  ]
    .filter(Boolean)
    .join(' · '),
)
const notHere = computed(() => current.value?.not_here)

function sayNotHere(): void {
  if (current.value && notHere.value) walking.answer(current.value, notHere.value)
}
watch(
  [current, notHere],
  () => {
    const skip = { name: 'Skip', run: walking.skip }
    const gone = { name: 'Not here', run: sayNotHere }
    bar.actions = current.value ? (notHere.value ? [skip, gone] : [skip]) : []
  },
  { immediate: true },
)
onUnmounted(() => (bar.actions = []))
watch(
  () => current.value?.key,
  (key) =>
    void nextTick(() =>
      document.querySelector(`[data-stop="${key}"]`)?.scrollIntoView({ block: 'nearest' }),
    ),
)
</script>

<template>
  <p v-if="error" class="none" role="alert">{{ error.message }}</p>
  <p v-else-if="!walk" class="none muted">Loading the walk …</p>
  <div v-else class="walk">
    <header>
      <h2>{{ walk.name }}</h2>
      <p class="muted">
        {{ told }}
      </p>
      <ChipRow
        v-if="walks.length > 1"
        label="Walk"
        :options="walks.map(({ key, name }) => ({ key, name }))"
        :chosen="walk.key"
        @choose="walking.choose"
      />
    </header>
    <div class="stops">
      <WalkStop
        v-for="stop in walk.stops"
        :key="stop.key"
        :stop="stop"
        :current="stop.key === current?.key"
        :answered="walking.answered(stop)"
        :skipped="skipped.includes(stop)"
        :writable="page.writable"
        @answer="(answer) => walking.answer(stop, answer)"
        @more="desk.pick(stop.part)"
        @go="walking.go(stop)"
      >
        <template v-if="!desk.narrow.value && stop.key === current?.key">
          <button class="quiet" @click="walking.skip">skip</button>
          <button v-if="notHere" class="quiet" @click="sayNotHere">not here</button>
        </template>
      </WalkStop>
    </div>
    <p v-if="!current && left" class="end">
      {{ skipped.length }} skipped.
      <button class="btn strong" @click="walking.backToSkipped">Go through them now</button>
    </p>
    <p v-else-if="!current" class="end">The walk is done: every stop was answered.</p>
  </div>
</template>

<style scoped>
.none {
  padding: 30px 20px;
}
.walk {
  display: grid;
  gap: 12px;
  padding: 14px 20px 30px;
}
header {
  display: flex;
  flex-wrap: wrap;
  align-items: baseline;
  gap: 4px 14px;
}
h2 {
  margin: 0;
  font-size: 21px;
}
header p,
.end {
  margin: 0;
}
.stops {
  display: grid;
  grid-template-columns: repeat(auto-fill, minmax(min(100%, 380px), 1fr));
  align-items: start;
  gap: 10px;
}
@media (max-width: 800px) {
  .walk {
    padding: 10px 10px 20px;
  }
}
</style>
