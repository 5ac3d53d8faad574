<script setup lang="ts">
import { computed } from 'vue'
import CardListView from './CardListView.vue'
import CardView from './CardView.vue'
import NewCard from './NewCard.vue'
import { useSort } from './useSort'

/** Cards of one sort: all of them, one of them, or a new one. */
const props = defineProps<{ sort: string; which?: string }>()
const { form, error } = useSort(() => props.sort)
const id = computed(() => Number(props.which))
</script>

<template>
  <p v-if="error" role="alert">{{ error.message }}</p>
  <template v-if="form">
    <NewCard v-if="which === 'new'" :sort="form" />
    <CardView v-else-if="which" :id="id" :key="`${sort} ${id}`" :sort="form" />
    <CardListView v-else :key="sort" :sort="form" />
  </template>
</template>
