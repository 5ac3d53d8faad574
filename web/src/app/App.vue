<script setup lang="ts">
import { useQuery, useQueryClient } from '@tanstack/vue-query'
import { darkTheme, NConfigProvider, NGlobalStyle, NMessageProvider } from 'naive-ui'
import { computed, defineAsyncComponent, ref, watch } from 'vue'
import { useRoute, useRouter } from 'vue-router'
import { keys } from '@/api/calls'
import type { ApiError, Schemas } from '@/api/client'
import { getMe } from '@/api/people'
import { useOutbox } from '@/outbox/useOutbox'
import { notReached } from '@/outbox/notReached'
import SignInOver from '@/parts/session/SignInOver.vue'
import SignInScreen from '@/screens/SignInScreen.vue'
import SampleStrip from './SampleStrip.vue'
import { formats } from '@/ui/formats'
import { useTheme } from '@/ui/theme'
import { overrides } from './theme'
import { focusMain, useFocusOnEntering } from './useFocusOnEntering'

const OwnScreen = defineAsyncComponent(() => import('@/screens/OwnScreen.vue'))
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
// What waits is read from the tablet's disk before the server has said anything.
void outbox.read()
// Kept while the answer is asked for again, so that a name half typed stays where it is.
const refused = ref(false)
const signedOut = computed(() => refused.value || outbox.signedOut)
watch([me, error], () => {
  if (error.value?.status === 401) refused.value = true
  else if (me.value) refused.value = false
})
// A session that ended is told by whatever call comes first; whoever asks for the page's person again finds out.
watch(
  () => outbox.signedOut,
  (out) => out && void cache.invalidateQueries({ queryKey: keys.me }),
)
watch(
  () => me.value?.formats,
  (chosen) => {
    if (chosen) formats.value = chosen
  },
  { immediate: true },
)
watch(
  [() => me.value?.username, () => error.value?.status],
  ([name, trouble]) => {
    if (name && trouble !== 401)
      void outbox.start(name, (page) => cache.setQueryData(keys.visit(page.id), page))
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
    <SampleStrip v-if="me?.sample_world && !route.meta['open']" />
    <NMessageProvider placement="top">
      <RouterView v-if="route.meta['open']" />
      <template v-else-if="me">
        <OwnScreen v-if="me.must_set_code" />
        <RouterView v-else />
        <SignInOver v-if="signedOut" :username="me.username" :waiting="outbox.waiting.length" />
      </template>
      <SignInScreen v-else-if="signedOut" />
      <main v-else id="main" tabindex="-1" class="blank">
        <p v-if="isPending">Loading …</p>
        <template v-else>
          <p>The server cannot be reached.</p>
          <p v-if="outbox.waiting.length" class="muted">
            {{ notReached(outbox.waiting.length) }}: kept on this tablet, sent by itself when it is.
          </p>
          <p class="muted">Nothing is judged without the server.</p>
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
