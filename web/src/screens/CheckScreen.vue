<script setup lang="ts">
import { useQuery } from '@tanstack/vue-query'
import { computed, ref } from 'vue'
import { useRouter } from 'vue-router'
import { getSealed, keys } from '@/api/calls'
import type { ApiError, Schemas } from '@/api/client'
import BundleCheck from '@/features/check/BundleCheck.vue'
import SealedPaper from '@/features/check/SealedPaper.vue'
import { useTitle } from '@/ui/title'

/** Is a paper, or a bundle, what was sealed? Open to whoever holds one. */
const props = defineProps<{ head?: string }>()
const router = useRouter()
const typed = ref('')
const head = computed(() => props.head ?? '')
const { data, error, isFetching } = useQuery<Schemas['SealedOut'], ApiError>({
  queryKey: computed(() => keys.sealed(head.value)),
  queryFn: () => getSealed(head.value),
  enabled: computed(() => head.value !== ''),
  retry: false,
})
useTitle(() => 'Check a paper')
/** The digits stand in groups on the page; pasted with the address before them they are meant as well. */
const look = () => {
  const digits = typed.value.replace(/\s/g, '').split('/').at(-1) ?? ''
  void router.push(`/check/${encodeURIComponent(digits)}`)
}
</script>

<template>
  <main id="main" tabindex="-1" class="check">
    <h1>Check a paper</h1>
    <p v-if="isFetching" class="muted">Looking …</p>
    <p v-else-if="error" class="trouble" role="alert">{{ error.message }}</p>
    <SealedPaper v-else-if="data" :sealed="data" />
    <form @submit.prevent="look">
      <label>
        End of the tape: the digits on the paper, all 64, or the code read with a camera
        <input v-model="typed" name="head" maxlength="300" autocomplete="off" spellcheck="false" />
      </label>
      <button class="btn" :disabled="!typed.trim()">Look it up</button>
    </form>
    <BundleCheck />
  </main>
</template>

<style scoped>
.check {
  max-width: 720px;
  margin: 0 auto;
  padding: 28px 16px 60px;
  display: grid;
  gap: 18px;
  align-content: start;
}
h1 {
  font-size: 28px;
}
form {
  display: grid;
  gap: 10px;
  justify-items: start;
}
label {
  display: grid;
  gap: 4px;
  width: 100%;
  font-weight: 500;
}
input {
  width: 100%;
  min-height: 48px;
  padding: 0 12px;
  border: 1.5px solid var(--line);
  border-radius: 6px;
  background: var(--plate);
  color: inherit;
  font-size: 16px;
}
.trouble {
  color: var(--out);
  font-weight: 600;
}
</style>
