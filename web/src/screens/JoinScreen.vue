<script setup lang="ts">
import { useQuery } from '@tanstack/vue-query'
import { computed, ref } from 'vue'
import { keys } from '@/api/calls'
import type { ApiError, Schemas } from '@/api/client'
import { acceptInvitation, getInvitation } from '@/api/people'
import { useAsyncAction } from '@/api/useAsyncAction'
import Field from '@/ui/Field.vue'
import { useTitle } from '@/ui/title'

/** Somebody invited chooses a password, once, and is in. */
const props = defineProps<{ token: string }>()
const { data: opened, error } = useQuery<Schemas['OpenedOut'], ApiError>({
  queryKey: computed(() => keys.invitation(props.token)),
  queryFn: () => getInvitation(props.token),
  retry: false,
})
const { trouble, busy, run } = useAsyncAction()
const password = ref('')
useTitle(() => 'Choose a password')
const join = () =>
  run(async () => {
    await acceptInvitation(props.token, password.value)
    window.location.assign('/') // a page of its own: nothing of whoever used this browser before is left on it
  })
</script>

<template>
  <main id="main" tabindex="-1" class="door">
    <div class="box">
      <h1>Havrin</h1>
      <p v-if="error" class="bad" role="alert">{{ error.message }}</p>
      <form v-else-if="opened" @submit.prevent="join">
        <p>
          {{ opened.first_name }}, {{ opened.again ? 'choose a new password' : 'join' }}
          {{ opened.again ? 'at' : '' }} {{ opened.firm }}. You sign in as
          <b>{{ opened.username }}</b>
          .
        </p>
        <input hidden name="username" autocomplete="username" :value="opened.username" />
        <Field
          v-model="password"
          label="Your password"
          name="password"
          type="password"
          autocomplete="new-password"
          hint="10 characters or more, not one of the common ones"
          :maxlength="500"
        />
        <p v-if="trouble" class="bad" role="alert">{{ trouble }}</p>
        <button class="btn strong" :disabled="busy || !password">Choose it and sign in</button>
      </form>
      <p v-else class="muted">Looking …</p>
    </div>
  </main>
</template>

<style scoped>
.door {
  display: grid;
  place-content: center;
  min-height: 100%;
  padding: 24px;
}
.box,
form {
  display: grid;
  gap: 16px;
}
.box {
  width: min(420px, 88vw);
  padding: 28px;
  border: 1.5px solid var(--line);
  border-left: 7px solid var(--fire);
  border-radius: 8px;
  background: var(--plate);
}
h1 {
  font-size: 34px;
  font-weight: 700;
  line-height: 1;
}
.bad {
  color: var(--out);
  font-weight: 600;
}
</style>
