<script setup lang="ts">
import { useQuery } from '@tanstack/vue-query'
import { keys } from '@/api/calls'
import type { ApiError, Schemas } from '@/api/client'
import { getMe } from '@/api/people'
import OwnCode from '@/features/own/OwnCode.vue'
import OwnScreenLook from '@/features/own/OwnScreenLook.vue'
import OwnPassword from '@/features/own/OwnPassword.vue'
import OwnSessions from '@/features/own/OwnSessions.vue'
import ScreenHead from '@/parts/head/ScreenHead.vue'

/** What is one's own: the password, the one-time code, and where one is signed in. */
const { data: me } = useQuery<Schemas['Me'], ApiError>({ queryKey: keys.me, queryFn: getMe })
</script>

<template>
  <div v-if="me">
    <ScreenHead :name="me.name" :line="`${me.role}, ${me.firm}`" />
    <main id="main" tabindex="-1">
      <OwnCode v-if="me.must_set_code" :me="me" />
      <template v-else>
        <OwnScreenLook :me="me" />
        <OwnPassword />
        <OwnCode :me="me" />
        <OwnSessions :zone="me.zone" />
      </template>
    </main>
  </div>
</template>

<style scoped>
main {
  display: grid;
  gap: 16px;
  max-width: 760px;
  margin: 0 auto;
  padding: 20px 16px 60px;
}
</style>
