<script setup lang="ts">
import { useQuery, useQueryClient } from '@tanstack/vue-query'
import { darkTheme, NConfigProvider, NGlobalStyle, NMessageProvider } from 'naive-ui'
import { ref, watch } from 'vue'
import { useRoute, useRouter } from 'vue-router'
import { getMe, keys } from '@/api/calls'
import type { ApiError, Schemas } from '@/api/client'
import { useOutbox } from '@/outbox/useOutbox'
import SignInScreen from '@/screens/SignInScreen.vue'
import { formats } from '@/ui/formats'
import { useTheme } from '@/ui/theme'
import { overrides } from './theme'
import { focusMain, useFocusOnEntering } from './useFocusOnEntering'

const theme = useTheme()
const route = useRoute()
const cache = useQueryClient()
useFocusOnEntering(useRouter())
const outbox = useOutbox()
const {
  data: me,
  error,
  isPending,
} = useQuery<Schemas['Me'], ApiError>({ queryKey: keys.me, queryFn: getMe, retry: false })
// Kept while the answer is asked for again, so that a name half typed stays where it is.
const signedOut = ref(false)
watch([me, error], () => {
  if (error.value?.status === 401) signedOut.value = true
  else if (me.value) signedOut.value = false
})
watch(
  () => me.value?.formats,
  (chosen) => {
    if (chosen) formats.value = chosen
  },
  { immediate: true },
)
watch(
  () => me.value?.username,
  (name) => {
    if (name) void outbox.start(name, (page) => cache.setQueryData(keys.visit(page.id), page))
  },
  { immediate: true },
)
</script>

<template>
  <NConfigProvider
    :theme="theme.cellar ? darkTheme : null"
    :theme-overrides="overrides(theme.cellar)"
    abstract
  >
    <NGlobalStyle />
    <a class="skip" href="#main" @click.prevent="focusMain">Skip to the content</a>
    <NMessageProvider placement="top">
      <RouterView v-if="route.meta['open']" />
      <SignInScreen v-else-if="signedOut" />
      <RouterView v-else-if="me" />
      <main v-else id="main" tabindex="-1" class="blank">
        <p v-if="isPending">Loading …</p>
        <template v-else>
          <p>The server is not reached.</p>
          <p class="muted">
            {{ outbox.waiting.length }} entries are kept on this tablet. Nothing is judged without
            the server.
          </p>
        </template>
      </main>
    </NMessageProvider>
  </NConfigProvider>
</template>

<style scoped>
.skip {
  position: absolute;
  top: 0;
  left: 0;
  z-index: 10;
  padding: 12px 18px;
  background: var(--plate);
  color: var(--ink);
  font-weight: 600;
  translate: 0 -110%;
}
.skip:focus {
  translate: 0 0;
}
.blank {
  display: grid;
  place-content: center;
  height: 100%;
  text-align: center;
  gap: 8px;
  padding: 24px;
}
</style>
