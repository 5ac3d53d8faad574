<script setup lang="ts">
import { computed } from 'vue'

/** From page to page of a long list. */
const props = defineProps<{ count: number; perPage: number }>()
const page = defineModel<number>({ required: true })
const pages = computed(() => Math.max(1, Math.ceil(props.count / props.perPage)))
</script>

<template>
  <p v-if="pages > 1" class="pages">
    <button class="btn" :disabled="page <= 1" aria-label="The page before" @click="page--">
      ‹
    </button>
    <span>
      {{ (page - 1) * perPage + 1 }} to {{ Math.min(page * perPage, count) }} of {{ count }}
    </span>
    <button class="btn" :disabled="page >= pages" aria-label="The next page" @click="page++">
      ›
    </button>
  </p>
</template>

<style scoped>
.pages {
  display: flex;
  gap: 12px;
  align-items: center;
}
.btn {
  min-width: 44px;
}
</style>
