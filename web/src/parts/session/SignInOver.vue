<script setup lang="ts">
import { NModal } from 'naive-ui'
import { notReached } from '@/outbox/notReached'
import SignInForm from './SignInForm.vue'

/** The session ended while somebody works: asked for over the page, which stays as it is. */
defineProps<{ username: string; waiting: number }>()
</script>

<template>
  <NModal
    show
    preset="card"
    style="max-width: 420px"
    title="Sign in again"
    aria-label="Sign in again"
    :closable="false"
    :mask-closable="false"
    :close-on-esc="false"
  >
    <p class="kept">
      Your session has ended. The page stays as it is{{
        waiting
          ? `; ${notReached(waiting)} and ${waiting === 1 ? 'goes' : 'go'} when you are signed in`
          : ''
      }}.
    </p>
    <SignInForm :before="username" />
  </NModal>
</template>

<style scoped>
.kept {
  margin-bottom: 14px;
}
</style>
