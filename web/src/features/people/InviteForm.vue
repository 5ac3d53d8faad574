<script setup lang="ts">
import { computed, reactive } from 'vue'
import type { Schemas } from '@/api/client'
import ChipRow from '@/ui/ChipRow.vue'
import Field from '@/ui/Field.vue'
import { ROLES } from './roles'

/** Somebody who is to join. */
defineProps<{ busy: boolean }>()
const emit = defineEmits<{ invite: [who: Schemas['InvitationIn']] }>()
const empty = (): Schemas['InvitationIn'] => ({
  username: '',
  first_name: '',
  last_name: '',
  role: 'technician',
})
const who = reactive(empty())
const may = computed(() => ROLES.find((role) => role.key === who.role)?.may)
const choose = (key: string) => {
  who.role = ROLES.find((role) => role.key === key)?.key ?? 'technician'
}
defineExpose({ clear: () => Object.assign(who, empty()) })
</script>

<template>
  <form @submit.prevent="emit('invite', { ...who })">
    <div class="names">
      <Field v-model="who.first_name" label="First name" name="first_name" />
      <Field v-model="who.last_name" label="Last name" name="last_name" />
      <Field
        v-model="who.username"
        label="Sign-in name"
        name="new_username"
        hint="small letters, digits, dots"
        :maxlength="30"
      />
    </div>
    <ChipRow label="Role" :options="ROLES" :chosen="who.role" @choose="choose" />
    <p class="muted">May: {{ may }}.</p>
    <button class="btn strong" :disabled="busy || !who.first_name.trim() || !who.username.trim()">
      Make the invitation
    </button>
  </form>
</template>

<style scoped>
form {
  display: grid;
  gap: 12px;
  justify-items: start;
}
.names {
  display: grid;
  grid-template-columns: repeat(3, minmax(0, 1fr));
  gap: 12px;
  width: 100%;
}
@media (max-width: 800px) {
  .names {
    grid-template-columns: minmax(0, 1fr);
  }
}
</style>
