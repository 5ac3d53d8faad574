<script setup lang="ts">
import { useQuery, useQueryClient } from '@tanstack/vue-query'
import { computed } from 'vue'
import { getRound, keys } from '@/api/calls'
import type { ApiError, Schemas } from '@/api/client'
import { getMe, prefer } from '@/api/people'
import AllUnits from '@/features/round/AllUnits.vue'
import RoundStop from '@/features/round/RoundStop.vue'
import { dayOfRound } from '@/ui/moments'
import { useTheme } from '@/ui/theme'
import { useTitle } from '@/ui/title'

const theme = useTheme()
const cache = useQueryClient()
const { data: me } = useQuery<Schemas['Me'], ApiError>({ queryKey: keys.me, queryFn: getMe })
const {
  data: round,
  error,
  isPending,
  refetch,
} = useQuery<Schemas['Round'], ApiError>({
  queryKey: keys.round,
  queryFn: getRound,
  refetchOnMount: 'always',
})
const day = computed(() => round.value && dayOfRound(round.value.day))
useTitle(() => (day.value ? `Round of ${day.value}` : 'Round'))
const open = computed(() => round.value?.stops.filter((stop) => !stop.closed).length ?? 0)

async function switchUnits(): Promise<void> {
  if (!me.value) return
  cache.setQueryData(
    keys.me,
    await prefer({ unit_system: me.value.unit_system === 'us' ? 'metric' : 'us' }),
  )
  await cache.invalidateQueries()
}
</script>

<template>
  <div class="round">
    <header>
      <b class="name">Havrin</b>
      <span class="firm">{{ me?.firm }}</span>
      <RouterLink to="/own" class="chip who">
        <span class="full">{{ me?.name }}</span>
        <span class="short">You</span>
      </RouterLink>
      <RouterLink to="/shop" class="chip">Shop</RouterLink>
      <RouterLink v-if="me?.sees_people" to="/firm" class="chip">Firm</RouterLink>
      <button class="chip" @click="switchUnits">
        Units: {{ me?.unit_system === 'us' ? 'US' : 'metric' }}
      </button>
      <button class="chip" @click="theme.toggle()">
        {{ theme.cellar ? 'Daylight' : 'Cellar' }}
      </button>
    </header>
    <main id="main" tabindex="-1">
      <h1>{{ day ?? 'The round' }}</h1>
      <p v-if="round?.stops.length" class="muted">
        {{ round.stops.length }} stops in the order to drive · {{ open }} open
      </p>
      <p v-if="isPending" class="muted">Loading the round …</p>
      <div v-else-if="error" class="trouble" role="alert">
        <b>{{ error.message }}</b>
        <button class="btn" @click="refetch()">Try again</button>
      </div>
      <p v-else-if="!round?.stops.length" class="empty">No visit is planned for today.</p>
      <ol v-else>
        <RoundStop v-for="stop in round.stops" :key="stop.id" :stop="stop" />
      </ol>
      <AllUnits />
    </main>
  </div>
</template>

<style scoped>
header {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 12px;
  min-height: 54px;
  padding: 5px 16px;
  background: var(--bar);
  color: var(--bar-ink);
}
.name {
  font-size: 21px;
  font-weight: 700;
}
.firm {
  color: var(--bar-muted);
}
.who {
  margin-left: auto;
}
.short {
  display: none;
}
.chip {
  min-height: 44px;
  padding: 0 14px;
  border: 1px solid var(--bar-line);
  border-radius: 6px;
  background: none;
  color: var(--bar-ink);
}
a.chip {
  display: inline-flex;
  align-items: center;
  text-decoration: none;
}
main {
  max-width: 980px;
  margin: 0 auto;
  padding: 26px 16px 60px;
}
h1 {
  font-size: 28px;
  font-weight: 600;
}
ol {
  list-style: none;
  margin: 18px 0 0;
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
  .firm,
  .full {
    display: none;
  }
  .short {
    display: inline;
  }
  .name {
    margin-right: auto;
  }
  .chip {
    padding: 0 8px;
  }
  header {
    gap: 6px;
    padding: 5px 8px;
  }
  main {
    padding-top: 18px;
  }
}
</style>
