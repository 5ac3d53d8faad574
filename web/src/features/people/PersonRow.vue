<script setup lang="ts">
import type { Schemas } from '@/api/client'
import { dayAt } from '@/ui/moments'
import { ROLES } from './roles'

/** One person of the firm, and what an administrator may do about it. */
const props = defineProps<{
  person: Schemas['MemberOut']
  zone: string
  mayWrite: boolean
  own: boolean
  codesRequired: boolean
}>()
const emit = defineEmits<{
  change: [to: Schemas['MemberIn']]
  reset: []
}>()
const roleOf = (event: Event) =>
  (event.target as HTMLSelectElement).value as typeof props.person.role
const seen = () =>
  props.person.last_login
    ? `signed in ${dayAt(props.person.last_login, props.zone)}`
    : 'never signed in'
</script>

<template>
  <li :class="{ gone: !person.is_active }">
    <div class="who">
      <b>{{ person.name }}</b>
      <span class="muted">
        {{ person.username }} · {{ person.is_active ? seen() : 'has left' }}
        <template v-if="person.is_active && person.decides">
          ·
          <span :class="{ lacks: codesRequired && !person.has_code }">
            {{ person.has_code ? 'signs in with a code' : 'no one-time code' }}
          </span>
        </template>
      </span>
    </div>
    <span v-if="!mayWrite || !person.is_active" class="role">{{ person.role }}</span>
    <select
      v-else
      class="role"
      :aria-label="`Role of ${person.name}`"
      :value="person.role"
      @change="emit('change', { role: roleOf($event) })"
    >
      <option v-for="role in ROLES" :key="role.key" :value="role.key">{{ role.name }}</option>
    </select>
    <div v-if="mayWrite" class="actions">
      <button v-if="person.is_active" class="btn" @click="emit('reset')">New password …</button>
      <button v-if="!own" class="btn" @click="emit('change', { active: !person.is_active })">
        {{ person.is_active ? 'Has left' : 'Is back' }}
      </button>
    </div>
  </li>
</template>

<style scoped>
li {
  display: grid;
  grid-template-columns: minmax(0, 1fr) 170px 260px;
  gap: 8px 14px;
  align-items: center;
  padding: 10px 0;
  border-bottom: 1px solid var(--line);
}
.who {
  display: grid;
}
.gone b,
.gone .role {
  color: var(--muted);
}
.lacks {
  color: var(--out);
}
.role {
  min-height: 44px;
  align-content: center;
  text-transform: capitalize;
}
select {
  padding: 0 10px;
  border: 1.5px solid var(--line);
  border-radius: 6px;
  background: var(--plate);
  color: inherit;
  font: inherit;
}
.actions {
  display: flex;
  gap: 8px;
  justify-content: flex-end;
}
@media (max-width: 800px) {
  li {
    grid-template-columns: minmax(0, 1fr);
  }
  .actions {
    justify-content: flex-start;
  }
}
</style>
