<script setup lang="ts">
import { useQueryClient } from '@tanstack/vue-query'
import { NInput } from 'naive-ui'
import { ref } from 'vue'
import { keys, signIn } from '@/api/calls'
import { ApiError } from '@/api/client'
import { useTitle } from '@/ui/title'

const cache = useQueryClient()
const username = ref('')
const password = ref('')
const refused = ref('')
const busy = ref(false)
useTitle(() => 'Sign in')

async function submit(): Promise<void> {
  busy.value = true
  refused.value = ''
  try {
    const me = await signIn({
      username: username.value.trim().toLowerCase(),
      password: password.value,
    })
    await cache.resetQueries()
    cache.setQueryData(keys.me, me)
  } catch (error) {
    refused.value =
      error instanceof ApiError ? error.message : 'Something went wrong in the page: try again.'
  } finally {
    busy.value = false
  }
}
</script>

<template>
  <main id="main" tabindex="-1" class="door">
    <form class="box" @submit.prevent="submit">
      <h1>Havrin</h1>
      <p class="muted">Test it, write it down, know whether it may be left running.</p>
      <label>
        Name
        <NInput
          v-model:value="username"
          size="large"
          placeholder=""
          :input-props="{ autocomplete: 'username', name: 'username', autocapitalize: 'none' }"
          autofocus
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
        />
      </label>
      <p v-if="refused" class="refused" role="alert">{{ refused }}</p>
      <button class="btn strong" :disabled="busy || !username || !password">
        {{ busy ? 'Signing in …' : 'Sign in' }}
      </button>
    </form>
    <p class="foot muted">
      Havrin supports a licensed person’s judgement and never replaces it.
      <br />
      Local codes, the maker’s manual and the licence decide.
    </p>
  </main>
</template>

<style scoped>
.door {
  min-height: 100%;
  display: grid;
  place-content: center;
  gap: 20px;
  padding: 24px;
}
.box {
  width: min(400px, 88vw);
  display: grid;
  gap: 16px;
  background: var(--plate);
  border: 1.5px solid var(--line);
  border-left: 7px solid var(--fire);
  border-radius: 8px;
  padding: 28px;
}
h1 {
  font-size: 34px;
  font-weight: 700;
  line-height: 1;
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
.foot {
  text-align: center;
  font-size: 14px;
}
</style>
