<script setup lang="ts">
import { useQuery } from '@tanstack/vue-query'
import { watch } from 'vue'
import { getShared, keys } from '@/api/calls'
import type { ApiError, Schemas } from '@/api/client'
import { formats } from '@/ui/formats'
import { levelState } from '@/ui/levels'
import { fullDay } from '@/ui/moments'
import StateMark from '@/ui/StateMark.vue'
import { useTitle } from '@/ui/title'

const props = defineProps<{ token: string }>()
const { data, error } = useQuery<Schemas['SharedOut'], ApiError>({
  queryKey: keys.shared(props.token),
  queryFn: () => getShared(props.token),
  retry: false,
})
watch(data, (shared) => shared && (formats.value = shared.formats))
useTitle(() => data.value?.unit)
</script>

<template>
  <main id="main" tabindex="-1" class="shared">
    <p v-if="error" class="trouble" role="alert">{{ error.message }}</p>
    <p v-else-if="!data" class="muted">Loading …</p>
    <template v-else>
      <p class="muted">{{ data.firm }}</p>
      <h1>{{ data.unit }}</h1>
      <p class="muted">{{ data.site }} · this page can be read until {{ fullDay(data.until) }}</p>
      <p v-if="!data.visits.length">No visit is closed yet.</p>
      <article v-for="visit in data.visits" :key="visit.id">
        <h2>
          <StateMark :state="levelState(visit.level)" :size="20" />
          {{ fullDay(visit.day) }}: {{ visit.title }}
        </h2>
        <p class="muted">{{ visit.reason }}</p>
        <p v-if="visit.words">{{ visit.words }}</p>
        <a class="btn" :href="visit.report" target="_blank" rel="noopener">Report (PDF)</a>
      </article>
      <p class="care">
        <b>If you smell gas:</b>
        touch no switch and no phone, leave, and call from outside. If a CO alarm sounds or people
        feel ill: everybody out, and call from outside.
      </p>
    </template>
  </main>
</template>

<style scoped>
.shared {
  max-width: 720px;
  margin: 0 auto;
  padding: 28px 16px 60px;
  display: grid;
  gap: 14px;
  align-content: start;
}
h1 {
  font-size: 28px;
}
h2 {
  display: flex;
  gap: 10px;
  align-items: center;
  font-size: 19px;
}
article {
  display: grid;
  gap: 7px;
  justify-items: start;
  padding: 14px 16px;
  border: 1.5px solid var(--line);
  border-radius: 8px;
  background: var(--plate);
}
.care {
  padding: 12px 14px;
  border-left: 5px solid var(--near);
  background: var(--plate);
}
.trouble {
  font-size: 19px;
  color: var(--out);
}
</style>
