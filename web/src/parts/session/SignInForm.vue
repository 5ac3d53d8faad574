<script setup lang="ts">
import { useQueryClient } from '@tanstack/vue-query'
import { NInput } from 'naive-ui'
import { ref } from 'vue'
import { keys } from '@/api/calls'
import { ApiError, type Schemas } from '@/api/client'
import { signIn } from '@/api/people'
import { useOutbox } from '@/outbox/useOutbox'

/** Name and password. What is on the page stays when the same person signs in again; somebody else begins anew. */
const props = defineProps<{ before?: string }>()
const cache = useQueryClient()
const outbox = useOutbox()
const username = ref(props.before ?? '')
const password = ref('')
const code = ref('')
const asksCode = ref(false)
const refused = ref('')
const busy = ref(false)

async function submit(): Promise<void> {
  busy.value = true
  refused.value = ''
  try {
    const name = username.value.trim().toLowerCase()
    await go(await signIn({ username: name, password: password.value, code: code.value.trim() }))
  } catch (error) {
    if (error instanceof ApiError && error.code === 'code_needed') asksCode.value = true
    refused.value =
      error instanceof ApiError ? error.message : 'Something went wrong in the page: try again.'
  } finally {
    busy.value = false
  }
}

async function go(me: Schemas['Me']): Promise<void> {
  if (me.username !== props.before) await cache.resetQueries()
  cache.setQueryData(keys.me, me)
  if (me.username === props.before) {
    outbox.flushNow()
    await cache.invalidateQueries()
  }
}
</script>

<template>
  <form class="signing" @submit.prevent="submit">
    <label>
      Name
      <NInput
        v-model:value="username"
        size="large"
        placeholder=""
        :input-props="{ autocomplete: 'username', name: 'username', autocapitalize: 'none' }"
        :autofocus="!before"
      />
    </label>
    <label>
      Password
      <NInput
        v-model:value="password"
        size="large"
        type="password"
        placeholder=""
        :input-props="{ autocomplete: 'current-password', name: 'password' }"
        :autofocus="!!before"
      />
    </label>
    <label v-if="asksCode">
      One-time code
      <NInput
        v-model:value="code"
        size="large"
        placeholder=""
        :input-props="{ autocomplete: 'one-time-code', name: 'code', inputmode: 'numeric' }"
        autofocus
      />
    </label>
    <p v-if="refused" class="refused" role="alert">{{ refused }}</p>
    <button class="btn strong" :disabled="busy || !username || !password">
      {{ busy ? 'Signing in …' : 'Sign in' }}
    </button>
  </form>
</template>

<style scoped>
.signing {
  display: grid;
  gap: 16px;
}
label {
  display: grid;
  gap: 4px;
  font-weight: 500;
}
.refused {
  color: var(--out);
  font-weight: 600;
}
</style>
