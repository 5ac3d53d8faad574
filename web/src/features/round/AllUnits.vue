<script setup lang="ts">
import { useQuery } from '@tanstack/vue-query'
import { getSites, keys } from '@/api/calls'
import type { ApiError, Schemas } from '@/api/client'
import { levelState } from '@/ui/levels'
import StateMark from '@/ui/StateMark.vue'

const { data: sites } = useQuery<Schemas['SiteMark'][], ApiError>({
  queryKey: keys.sites,
  queryFn: getSites,
  refetchOnMount: 'always',
})
</script>

<template>
  <section v-if="sites?.length" class="all">
    <h2>
      All units
      <span class="muted">as their newest closed visit left them</span>
    </h2>
    <div v-for="site in sites" :key="site.id" class="site">
      <RouterLink :to="`/sites/${site.id}`" class="name">{{ site.name }}</RouterLink>
      <div class="units">
        <RouterLink
          v-for="unit in site.units"
          :key="unit.id"
          :to="`/units/${unit.id}`"
          class="unit"
          :class="{ off: (unit.level ?? 0) >= 4 }"
        >
          <StateMark :state="unit.level ? levelState(unit.level) : 'none'" :size="13" />
          <b>{{ unit.label }}</b>
          <span>{{ unit.place }}</span>
          <span v-if="(unit.level ?? 0) >= 4" class="tag">tagged off</span>
        </RouterLink>
      </div>
    </div>
  </section>
</template>

<style scoped>
.all {
  margin-top: 34px;
  display: grid;
  gap: 12px;
}
h2 {
  font-size: 20px;
}
h2 span {
  font-weight: 400;
  font-size: 15px;
  margin-left: 6px;
}
.site {
  display: grid;
  grid-template-columns: 210px minmax(0, 1fr);
  gap: 4px 14px;
  align-items: start;
}
.units {
  display: flex;
  flex-wrap: wrap;
  gap: 7px;
}
.name {
  color: inherit;
  font-weight: 500;
  min-height: 44px;
  display: inline-flex;
  align-items: center;
}
.unit {
  display: inline-flex;
  gap: 7px;
  align-items: center;
  min-height: 44px;
  padding: 0 12px;
  border: 1.5px solid var(--line);
  border-radius: 6px;
  background: var(--plate);
  color: inherit;
  text-decoration: none;
}
.unit:hover {
  border-color: var(--muted);
}
.unit span {
  color: var(--muted);
}
.off {
  border-color: var(--out);
}
.unit .tag {
  color: var(--out);
  font-weight: 600;
}
@media (max-width: 700px) {
  .site {
    grid-template-columns: minmax(0, 1fr);
  }
}
</style>
