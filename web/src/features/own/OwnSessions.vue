<script setup lang="ts">
import { useQuery, useQueryClient } from '@tanstack/vue-query'
import { keys } from '@/api/calls'
import type { ApiError, Schemas } from '@/api/client'
import { endOtherSessions, endSession, getSessions, signOut } from '@/api/people'
import { useAsyncAction } from '@/api/useAsyncAction'
import Card from '@/ui/Card.vue'
import { momentAt } from '@/ui/moments'
import { deviceName } from './deviceName'

/** Where one is signed in, and how to end it. */
defineProps<{ zone: string }>()
const cache = useQueryClient()
const { data: sessions } = useQuery<Schemas['SessionOut'][], ApiError>({
  queryKey: keys.sessions,
  queryFn: getSessions,
  refetchOnMount: 'always',
})
const { trouble, busy, run } = useAsyncAction()
const keep = (work: Promise<Schemas['SessionOut'][]>) =>
  run(async () => void cache.setQueryData(keys.sessions, await work))

const leave = () =>
  run(async () => {
    await signOut()
    cache.clear()
    window.location.assign('/')
  })
</script>

<template>
  <Card title="Signed in" aside="on these browsers">
    <p v-if="trouble" class="bad" role="alert">{{ trouble }}</p>
    <ul>
      <li v-for="one in sessions" :key="one.id">
        <span>
          <b>{{ deviceName(one.device) }}</b>
          {{ one.here ? '(this one)' : '' }}
          <span class="muted">
            from {{ one.address || 'an unknown address' }}
            <template v-if="one.began_at">· since {{ momentAt(one.began_at, zone) }}</template>
            <template v-if="one.used_at && !one.here">
              · last used {{ momentAt(one.used_at, zone) }}
            </template>
          </span>
        </span>
        <button v-if="one.here" class="btn strong" :disabled="busy" @click="leave">Sign out</button>
        <button v-else class="btn" :disabled="busy" @click="keep(endSession(one.id))">
          Sign out there
        </button>
      </li>
    </ul>
    <button
      v-if="(sessions?.length ?? 0) > 1"
      class="btn"
      :disabled="busy"
      @click="keep(endOtherSessions())"
    >
      Sign out everywhere else
    </button>
  </Card>
</template>

<style scoped>
ul {
  list-style: none;
  margin: 0;
  padding: 0;
}
li {
  display: flex;
  flex-wrap: wrap;
  gap: 12px;
  align-items: center;
  justify-content: space-between;
  min-height: 52px;
  padding: 6px 0;
  border-bottom: 1px solid var(--line);
}
li > span > .muted {
  display: block;
  font-size: 15px;
}
.btn {
  justify-self: start;
}
.bad {
  color: var(--out);
  font-weight: 600;
}
</style>
