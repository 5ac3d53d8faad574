<script setup lang="ts">
import { useQuery } from '@tanstack/vue-query'
import { computed, ref, watch } from 'vue'
import { keys } from '@/api/calls'
import type { ApiError, Schemas } from '@/api/client'
import { getAudit, getMe } from '@/api/people'
import { momentAt } from '@/ui/moments'
import { ACTION_NAMES } from './actions'

/** The audit log: who did what, from where, when. It is added to and never changed. */
const { data: me } = useQuery<Schemas['Me'], ApiError>({ queryKey: keys.me, queryFn: getMe })
const action = ref('')
const before = ref<number | null>(null)
watch(action, () => (before.value = null))
const { data: log, error } = useQuery<Schemas['AuditOut'], ApiError>({
  queryKey: computed(() => keys.audit(action.value, before.value)),
  queryFn: () => getAudit(action.value, before.value),
  refetchOnMount: 'always',
})
const oldest = computed(() => log.value?.rows.at(-1)?.id ?? null)
</script>

<template>
  <p v-if="error" class="bad" role="alert">{{ error.message }}</p>
  <div v-if="log && me" class="log">
    <label>
      What
      <select v-model="action">
        <option value="">Everything</option>
        <option v-for="key in log.actions" :key="key" :value="key">{{ ACTION_NAMES[key] }}</option>
      </select>
    </label>
    <p v-if="!log.rows.length" class="muted">Nothing of that sort is noted.</p>
    <table v-else>
      <thead>
        <tr>
          <th>When</th>
          <th>Who</th>
          <th>What</th>
          <th>About</th>
          <th>From</th>
        </tr>
      </thead>
      <tbody>
        <tr
          v-for="row in log.rows"
          :key="row.id"
          :class="{ refused: row.action.includes('refused') }"
        >
          <td>{{ momentAt(row.at, me.zone) }}</td>
          <td>{{ row.who }}</td>
          <td class="what">{{ ACTION_NAMES[row.action] }}</td>
          <td class="about">{{ row.about }}</td>
          <td>{{ row.address }}</td>
        </tr>
      </tbody>
    </table>
    <div class="actions">
      <button v-if="before !== null" class="btn" @click="before = null">Newest</button>
      <button v-if="log.more" class="btn" @click="before = oldest">Older</button>
    </div>
  </div>
</template>

<style scoped>
.log {
  display: grid;
  gap: 14px;
}
label {
  display: flex;
  gap: 10px;
  align-items: center;
  font-weight: 500;
}
select {
  min-height: 44px;
  padding: 0 10px;
  border: 1.5px solid var(--line);
  border-radius: 6px;
  background: var(--plate);
  color: inherit;
  font: inherit;
}
table {
  width: 100%;
  border-collapse: collapse;
  background: var(--plate);
}
th,
td {
  padding: 8px 10px;
  border-bottom: 1px solid var(--line);
  text-align: left;
  vertical-align: top;
  font-size: 15px;
}
.what {
  font-weight: 600;
}
.refused .what {
  color: var(--out);
}
.about {
  overflow-wrap: anywhere;
}
.actions {
  display: flex;
  gap: 8px;
}
.bad {
  color: var(--out);
  font-weight: 600;
}
@media (max-width: 800px) {
  thead {
    display: none;
  }
  tr {
    display: grid;
    grid-template-columns: minmax(0, 1fr) minmax(0, 1fr);
    border-bottom: 1px solid var(--line);
    padding: 6px 0;
  }
  td {
    border: 0;
    padding: 2px 8px;
  }
}
</style>
