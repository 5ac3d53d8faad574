<script setup lang="ts">
import { ref } from 'vue'
import { judgeByNewest } from '@/api/calls'
import { ApiError, type Schemas } from '@/api/client'

const props = defineProps<{ page: Schemas['VisitPage'] }>()
const emit = defineEmits<{ page: [page: Schemas['VisitPage']] }>()
const trouble = ref('')

async function takeNewest(): Promise<void> {
  trouble.value = ''
  try {
    emit('page', await judgeByNewest(props.page.id))
  } catch (error) {
    trouble.value = error instanceof ApiError ? error.message : String(error)
  }
}
</script>

<template>
  <section v-if="page.moved_on.length" class="moved" role="status">
    <p v-for="line in page.moved_on" :key="line">Since this visit began, {{ line }}.</p>
    <p>This visit is still judged by what it began with.</p>
    <button v-if="page.writable" class="btn" @click="takeNewest">Judge by the newest</button>
    <p v-if="trouble" class="trouble" role="alert">{{ trouble }}</p>
  </section>
</template>

<style scoped>
.moved {
  display: grid;
  gap: 6px;
  justify-items: start;
  margin-bottom: 10px;
  padding: 10px 12px;
  border: 1.5px solid var(--near);
  border-radius: 7px;
}
.trouble {
  color: var(--out);
  font-weight: 600;
}
</style>
