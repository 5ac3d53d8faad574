<script setup lang="ts">
import { useQueryClient } from '@tanstack/vue-query'
import { ref } from 'vue'
import { keys } from '@/api/calls'
import type { Schemas } from '@/api/client'
import { beginCode, confirmCode, removeCode } from '@/api/people'
import { useAsyncAction } from '@/api/useAsyncAction'
import Card from '@/ui/Card.vue'
import Field from '@/ui/Field.vue'

/** One-time codes: six digits from an app, asked for at every sign-in. */
const props = defineProps<{ me: Schemas['Me'] }>()
const cache = useQueryClient()
const { trouble, busy, run } = useAsyncAction()
const begun = ref<Schemas['CodeSetUp'] | null>(null)
const code = ref('')
const password = ref('')
const begin = () => run(async () => void (begun.value = await beginCode()))
const finish = () =>
  run(async () => {
    const given = { code: code.value, password: password.value }
    const me = props.me.has_code
      ? await removeCode({ password: given.password })
      : await confirmCode(given)
    begun.value = null
    code.value = password.value = ''
    cache.setQueryData(keys.me, me)
    await cache.invalidateQueries({ predicate: (query) => query.queryKey[0] !== keys.me[0] })
  })
</script>

<template>
  <Card title="One-time code" :aside="me.has_code ? 'asked at every sign-in' : 'not set up'">
    <p v-if="me.must_set_code" class="bad" role="alert">
      Your firm asks supervisors and administrators for a one-time code. Set it up first; then
      everything else opens.
    </p>
    <form v-if="me.has_code || begun" @submit.prevent="finish">
      <template v-if="begun">
        <p>Read this with the app for codes on your phone, or type the letters into it:</p>
        <img :src="begun.picture" alt="QR code of the secret" width="220" height="220" />
        <code>{{ begun.secret.match(/.{1,4}/g)?.join(' ') }}</code>
        <Field
          v-model="code"
          label="The six digits that it shows"
          name="code"
          autocomplete="one-time-code"
          :maxlength="10"
        />
      </template>
      <Field
        v-model="password"
        label="Your password"
        name="password"
        type="password"
        autocomplete="current-password"
        :maxlength="500"
      />
      <p v-if="trouble" class="bad" role="alert">{{ trouble }}</p>
      <button class="btn" :disabled="busy || !password || (!!begun && !code)">
        {{ begun ? 'Ask for codes from now on' : 'Remove the code' }}
      </button>
    </form>
    <div v-else>
      <p class="muted">A second proof that it is you: who learns your password cannot sign in.</p>
      <p v-if="trouble" class="bad" role="alert">{{ trouble }}</p>
      <button class="btn" :disabled="busy" @click="begin">Set it up</button>
    </div>
  </Card>
</template>

<style scoped>
form,
div {
  display: grid;
  gap: 12px;
  max-width: 420px;
  justify-items: start;
}
form > label {
  width: 100%;
}
code {
  font-family: var(--font);
  font-weight: 600;
  letter-spacing: 0.04em;
}
.bad {
  color: var(--out);
  font-weight: 600;
}
</style>
