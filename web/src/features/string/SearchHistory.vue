<script setup lang="ts">
import { useQuery } from '@tanstack/vue-query'
import { computed, ref } from 'vue'
import { getSearchHistory, keys } from '@/api/calls'
import type { ApiError, Schemas } from '@/api/client'
import { percent } from './share'

/** How the search went: after each entry who led, and what said nothing to it. Asked for when it is opened. */
const props = defineProps<{ page: Schemas['VisitPage'] }>()
const open = ref(false)
const { data: steps, error } = useQuery<Schemas['SearchStepOut'][], ApiError>({
  queryKey: computed(() => keys.searchHistory(props.page.id, props.page.version)),
  queryFn: () => getSearchHistory(props.page.id),
  enabled: open,
})
/** The entry as it stands on the tape. */
function written(id: string): string {
  const entry = props.page.tape.find((e) => e.id === id)
  return entry ? `${entry.text} ${entry.value}`.trim() : id
}
</script>

<template>
  <details @toggle="open = ($event.target as HTMLDetailsElement).open">
    <summary>How it came to this</summary>
    <p v-if="error" role="alert">{{ error.message }}</p>
    <p v-else-if="!steps" class="muted">Following the tape …</p>
    <ol v-else>
      <li v-for="step in steps" :key="step.entry_id" :class="{ muted: !step.counted }">
        <span>{{ written(step.entry_id) }}</span>
        <span v-if="step.counted">
          <b>{{ step.first }}</b>
          {{ percent(step.share) }}
        </span>
        <span v-else>says nothing to the search</span>
      </li>
    </ol>
  </details>
</template>

<style scoped>
summary {
  min-height: 44px;
  display: flex;
  align-items: center;
  cursor: pointer;
  color: var(--in);
}
ol {
  display: grid;
  gap: 5px;
  margin: 0;
  padding: 0;
  list-style: none;
  font-size: 15px;
}
li {
  display: flex;
  justify-content: space-between;
  gap: 12px;
  border-bottom: 1px solid var(--line);
  padding-bottom: 4px;
}
li span:last-child {
  text-align: right;
}
</style>
