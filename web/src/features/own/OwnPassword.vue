<script setup lang="ts">
import { useQueryClient } from '@tanstack/vue-query'
import { ref } from 'vue'
import { keys } from '@/api/calls'
import { changePassword } from '@/api/people'
import { useAsyncAction } from '@/api/useAsyncAction'
import Card from '@/ui/Card.vue'
import Field from '@/ui/Field.vue'

/** Another password for oneself. */
const cache = useQueryClient()
const { trouble, busy, run } = useAsyncAction()
const old = ref('')
const next = ref('')
const done = ref(false)
const change = async () => {
  done.value = await run(async () => {
    cache.setQueryData(keys.me, await changePassword({ old: old.value, new: next.value }))
    await cache.invalidateQueries({ queryKey: keys.sessions })
    old.value = next.value = ''
  })
}
</script>

<template>
  <Card title="Password">
    <form @submit.prevent="change">
      <Field
        v-model="old"
        label="The one you have"
        name="old_password"
        type="password"
        autocomplete="current-password"
        :maxlength="500"
      />
      <Field
        v-model="next"
        label="The new one"
        name="new_password"
        type="password"
        autocomplete="new-password"
        hint="10 characters or more, not one of the common ones"
        :maxlength="500"
      />
      <p v-if="trouble" class="bad" role="alert">{{ trouble }}</p>
      <p v-else-if="done" role="status">Changed. Everywhere else you are signed out.</p>
      <button class="btn" :disabled="busy || !old || !next">Change it</button>
    </form>
  </Card>
</template>

<style scoped>
form {
  display: grid;
  gap: 12px;
  max-width: 420px;
  justify-items: start;
}
form > label {
  width: 100%;
}
.bad {
  color: var(--out);
  font-weight: 600;
}
</style>
