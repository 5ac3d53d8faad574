<script setup lang="ts">
import { useQuery } from '@tanstack/vue-query'
import { getSite, keys } from '@/api/calls'
import type { ApiError, Schemas } from '@/api/client'
import SideBySide from '@/features/site/SideBySide.vue'
import ScreenHead from '@/parts/head/ScreenHead.vue'

const props = defineProps<{ id: number }>()
const {
  data: site,
  error,
  isPending,
  refetch,
} = useQuery<Schemas['SiteOut'], ApiError>({
  queryKey: keys.site(props.id),
  queryFn: () => getSite(props.id),
  refetchOnMount: 'always',
})
</script>

<template>
  <div class="page">
    <ScreenHead
      :name="site?.name ?? 'Site'"
      :line="site?.units.length ? `${site.units.length} units side by side` : ''"
    />
    <main id="main" tabindex="-1">
      <p v-if="isPending" class="muted">Loading the site …</p>
      <div v-else-if="error" class="trouble" role="alert">
        <b>{{ error.message }}</b>
        <button class="btn" @click="refetch()">Try again</button>
      </div>
      <template v-else-if="site">
        <div class="place">
          <p v-if="site.address">{{ site.address }}</p>
          <p v-if="site.access">{{ site.access }}</p>
          <p v-if="site.hours">Open {{ site.hours }}</p>
          <p v-if="site.hazards" class="warn">{{ site.hazards }}</p>
          <p v-for="one in site.contacts" :key="one.name">
            <b>{{ one.name }}</b>
            {{ one.role.toLowerCase() }}
            <a v-if="one.phone" :href="`tel:${one.phone.replace(/[^+0-9]/g, '')}`">
              {{ one.phone }}
            </a>
            <a v-if="one.mail" :href="`mailto:${one.mail}`">{{ one.mail }}</a>
            <span class="muted">
              {{
                [one.language, one.decides && `decides on ${one.decides}`]
                  .filter(Boolean)
                  .join(' · ')
              }}
            </span>
          </p>
        </div>
        <p class="links">
          <RouterLink :to="`/sites/${site.id}/door`">A new unit here</RouterLink>
          <RouterLink :to="`/kept/site/${site.id}`">Its card</RouterLink>
          <a :href="`/api/sites/${site.id}/sheet.pdf`" target="_blank" rel="noopener">
            Test sheets of all units (PDF)
          </a>
        </p>
        <section v-if="site.shared.length" class="shared" aria-label="What they share">
          <h2>What they share</h2>
          <p v-for="text in site.shared" :key="text">{{ text }}</p>
        </section>
        <p v-else class="muted">No reading is off in the same way on several of them.</p>
        <SideBySide :site="site" />
      </template>
    </main>
  </div>
</template>

<style scoped>
main {
  padding: 18px 16px 60px;
  display: grid;
  gap: 14px;
}
h2 {
  font-size: 18px;
}
.place {
  display: grid;
  gap: 2px;
}
.place a {
  margin: 0 8px;
}
.warn {
  color: var(--near-ink);
  font-weight: 500;
}
.links {
  display: flex;
  flex-wrap: wrap;
  gap: 4px 20px;
}
.shared {
  display: grid;
  gap: 6px;
  padding: 12px 16px;
  border: 1.5px solid var(--near);
  border-left-width: 7px;
  border-radius: 7px;
  background: var(--plate);
}
.trouble {
  color: var(--out);
  display: flex;
  gap: 16px;
  align-items: center;
}
p a {
  display: inline-flex;
  align-items: center;
  min-height: 44px;
}
</style>
