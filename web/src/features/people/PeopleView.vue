<script setup lang="ts">
import { useQuery, useQueryClient } from '@tanstack/vue-query'
import { ref, useTemplateRef } from 'vue'
import { keys } from '@/api/calls'
import type { ApiError, Schemas } from '@/api/client'
import {
  changePerson,
  getMe,
  getPeople,
  invitePerson,
  requireCodes,
  resetPassword,
  revokeInvitation,
} from '@/api/people'
import { useAsyncAction } from '@/api/useAsyncAction'
import Card from '@/ui/Card.vue'
import { dayAt } from '@/ui/moments'
import InviteForm from './InviteForm.vue'
import LinkOnce from './LinkOnce.vue'
import PersonRow from './PersonRow.vue'

/** Who belongs to the firm, who is invited, and how those who decide sign in. */
const cache = useQueryClient()
const { data: me } = useQuery<Schemas['Me'], ApiError>({ queryKey: keys.me, queryFn: getMe })
const { data: firm, error } = useQuery<Schemas['MembersOut'], ApiError>({
  queryKey: keys.people,
  queryFn: getPeople,
  refetchOnMount: 'always',
})
const { trouble, busy, run } = useAsyncAction()
const made = ref<Schemas['InvitedOut'] | null>(null)
const form = useTemplateRef<{ clear: () => void }>('form')
const keep = (work: Promise<Schemas['MembersOut']>) =>
  run(async () => void cache.setQueryData(keys.people, await work))
const make = (work: Promise<Schemas['InvitedOut']>) =>
  run(async () => {
    made.value = await work
    form.value?.clear()
    await cache.invalidateQueries({ queryKey: keys.people })
  })
</script>

<template>
  <p v-if="error" class="bad" role="alert">{{ error.message }}</p>
  <template v-if="firm && me">
    <p v-if="trouble" class="bad" role="alert">{{ trouble }}</p>
    <LinkOnce v-if="made" :made="made" :zone="me.zone" @done="made = null" />
    <Card title="People" :aside="firm.may_write ? '' : 'an administrator changes them'">
      <ul>
        <PersonRow
          v-for="person in firm.people"
          :key="`${person.id} ${person.role} ${trouble}`"
          :person="person"
          :zone="me.zone"
          :may-write="firm.may_write"
          :own="person.username === me.username"
          :codes-required="firm.codes_required"
          @change="(to) => keep(changePerson(person.id, to))"
          @reset="make(resetPassword(person.id))"
        />
      </ul>
      <p class="muted">
        Whoever leaves is signed out everywhere at once, and the links and instrument keys they made
        end. Their name stays on what they wrote.
      </p>
    </Card>
    <Card v-if="firm.may_write" title="Somebody new">
      <InviteForm ref="form" :busy="busy" @invite="(who) => make(invitePerson(who))" />
    </Card>
    <Card v-if="firm.invitations.length" title="Links that are open">
      <ul>
        <li v-for="one in firm.invitations" :key="one.id" class="link">
          <span>
            <b>{{ one.name }}</b>
            <span class="muted">
              {{ one.username }} · {{ one.again ? 'new password' : one.role }} · until
              {{ dayAt(one.expires_at, me.zone) }}
            </span>
          </span>
          <button v-if="firm.may_write" class="btn" @click="keep(revokeInvitation(one.id))">
            Take back
          </button>
        </li>
      </ul>
    </Card>
    <Card title="Signing in">
      <label class="codes">
        <input
          type="checkbox"
          :checked="firm.codes_required"
          :disabled="!firm.may_write || busy"
          @change="keep(requireCodes(!firm.codes_required))"
        />
        Supervisors and administrators sign in with a one-time code
      </label>
      <p class="muted">Anyone without one sets it up at the next sign-in, before anything else.</p>
    </Card>
  </template>
</template>

<style scoped>
ul {
  list-style: none;
  margin: 0;
  padding: 0;
}
.link {
  display: flex;
  gap: 12px;
  align-items: center;
  justify-content: space-between;
  padding: 8px 0;
  border-bottom: 1px solid var(--line);
}
.link > span {
  display: grid;
}
.codes {
  display: flex;
  gap: 12px;
  align-items: center;
  min-height: 44px;
  font-weight: 500;
}
.codes input {
  width: 22px;
  height: 22px;
}
.bad {
  color: var(--out);
  font-weight: 600;
}
</style>
