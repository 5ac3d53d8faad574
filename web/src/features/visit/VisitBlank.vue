<script setup lang="ts">
/** In the place of a visit that is not there: not yet, or not at all. */
defineProps<{ error: string | undefined }>()
</script>

<template>
  <main id="main" class="blank">
    <p v-if="!error">Loading the visit …</p>
    <template v-else>
      <h1>{{ error }}</h1>
      <RouterLink to="/" class="btn">Back to the round</RouterLink>
    </template>
  </main>
</template>

<style scoped>
.blank {
  display: grid;
  place-content: center;
  min-height: calc(100dvh - var(--strip));
  gap: 14px;
  text-align: center;
}
</style>
