<script setup lang="ts">
import { useQuery } from '@tanstack/vue-query'
import { computed, ref } from 'vue'
import { keys } from '@/api/calls'
import type { ApiError, Schemas } from '@/api/client'
import { getDay } from '@/api/firm'
import DayChooser from '@/features/round/DayChooser.vue'
import RoundStop from '@/features/round/RoundStop.vue'
import MainHead from '@/parts/head/MainHead.vue'
import { dayOfRound } from '@/ui/moments'
import { useTitle } from '@/ui/title'

/** One's own day first; any other is reached from it, and nothing that was left over is out of sight. */
const wanted = ref<string | null>(null) // null: today, wherever the place's clock stands
const {
  data: round,
  error,
  isPending,
  refetch,
} = useQuery<Schemas['Round'], ApiError>({
  queryKey: computed(() => keys.day(wanted.value ?? 'today')),
  queryFn: () => getDay(wanted.value),
  refetchOnMount: 'always',
})
const day = computed(() => round.value && dayOfRound(round.value.day))
useTitle(() => (day.value ? `Round of ${day.value}` : 'Round'))
const open = computed(() => round.value?.stops.filter((stop) => !stop.closed).length ?? 0)
const several = computed(
  () =>
    new Set(round.value && [...round.value.stops, ...round.value.left_over].map((s) => s.whose))
      .size > 1,
)
const isToday = computed(() => round.value?.day === round.value?.today)
const choose = (to: string) => (wanted.value = to === round.value?.today ? null : to)
</script>

<template>
  <div class="round">
    <MainHead />
    <main id="main" tabindex="-1">
      <div class="top">
        <h1>{{ day ?? 'The round' }}</h1>
        <DayChooser v-if="round" :day="round.day" :today="round.today" @choose="choose" />
      </div>
      <p v-if="round?.stops.length" class="muted">
        {{ round.stops.length }} stops in the order to drive · {{ open }} open
      </p>
      <p v-if="isPending" class="muted">Loading the round …</p>
      <div v-else-if="error" class="trouble" role="alert">
        <b>{{ error.message }}</b>
        <button class="btn" @click="refetch()">Try again</button>
      </div>
      <p v-else-if="!round?.stops.length" class="empty">
        {{ isToday ? 'No visit is planned for today.' : 'No visit is planned for this day.' }}
      </p>
      <ol v-else>
        <RoundStop v-for="stop in round.stops" :key="stop.id" :stop="stop" :named="several" />
      </ol>
      <section v-if="round?.left_over.length" aria-label="Left over">
        <h2>Left over from days before</h2>
        <ol>
          <RoundStop
            v-for="stop in round.left_over"
            :key="stop.id"
            :stop="stop"
            :named="several"
            dated
          />
        </ol>
      </section>
    </main>
  </div>
</template>

<style scoped>
main {
  max-width: 980px;
  margin: 0 auto;
  padding: 22px 16px 60px;
}
.top {
  display: flex;
  flex-wrap: wrap;
  gap: 8px 18px;
  align-items: center;
}
h1 {
  margin-right: auto;
  font-size: 28px;
  font-weight: 600;
}
h2 {
  margin-top: 30px;
  font-size: 20px;
}
ol {
  list-style: none;
  margin: 14px 0 0;
  padding: 0;
  display: grid;
  gap: 14px;
}
.empty {
  margin-top: 40px;
  font-size: 19px;
}
.trouble {
  margin-top: 30px;
  display: flex;
  gap: 16px;
  align-items: center;
  color: var(--out);
}
@media (max-width: 700px) {
  main {
    padding-top: 14px;
  }
}
</style>
