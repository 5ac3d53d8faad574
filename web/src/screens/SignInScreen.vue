<script setup lang="ts">
import { computed } from 'vue'
import { useOutbox } from '@/outbox/useOutbox'
import { waitingWords } from '@/outbox/notReached'
import SignInForm from '@/parts/session/SignInForm.vue'
import { useTitle } from '@/ui/title'

/** What waits on this tablet is told before anybody signs in: it goes when its author does. */
const outbox = useOutbox()
const waits = computed(() => waitingWords(outbox.items))
useTitle(() => 'Sign in')
</script>

<template>
  <main id="main" tabindex="-1" class="door">
    <div class="box">
      <h1>Havrin</h1>
      <p class="muted">Test it, write it down, know whether it may be left running.</p>
      <p v-for="words in waits" :key="words" class="waits">{{ words }}</p>
      <SignInForm />
    </div>
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
.waits {
  padding: 8px 12px;
  border: 1.5px dashed var(--near);
  border-radius: 5px;
}
.foot {
  text-align: center;
  font-size: 14px;
}
</style>
