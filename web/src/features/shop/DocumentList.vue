<script setup lang="ts">
import type { Schemas } from '@/api/client'
import FileButton from '@/ui/FileButton.vue'

/** The firm's own documents and the shipped ones. */
defineProps<{ list?: Schemas['ShopList']; chosen: string }>()
const emit = defineEmits<{ open: [key: string]; file: [file: File] }>()
const GROUPS = [
  { title: 'Our own', shipped: false },
  { title: 'Shipped', shipped: true },
]
</script>

<template>
  <nav aria-label="Documents">
    <template v-for="group in GROUPS" :key="group.title">
      <h2 v-if="list?.documents.some((row) => row.shipped === group.shipped)">
        {{ group.title }}
      </h2>
      <button
        v-for="row in list?.documents.filter((one) => one.shipped === group.shipped)"
        :key="row.key"
        :class="{ on: row.key === chosen }"
        :aria-current="row.key === chosen"
        @click="emit('open', row.key)"
      >
        {{ row.name }}
        <small v-if="row.used_by.length || row.changed_by">
          {{ [row.used_by.join(', '), row.changed_by].filter(Boolean).join(' · ') }}
        </small>
      </button>
    </template>
    <FileButton class="btn file" accept=".json,application/json" @file="(f) => emit('file', f)">
      Open a JSON file
    </FileButton>
  </nav>
</template>

<style scoped>
nav {
  display: flex;
  flex-direction: column;
  gap: 4px;
  overflow-y: auto;
  padding: 14px;
  border-right: 1.5px solid var(--line);
  background: var(--plate);
}
button {
  flex: none;
  min-height: 44px;
  padding: 6px 10px;
  border: 1.5px solid transparent;
  border-radius: 6px;
  background: none;
  text-align: left;
  line-height: 1.2;
}
button:hover {
  border-color: var(--line);
}
.on {
  background: var(--bar);
  color: var(--bar-ink);
}
small {
  display: block;
  color: var(--muted);
}
.on small {
  color: var(--bar-muted);
}
h2 {
  margin: 8px 0 2px;
  font-size: 17px;
}
.file {
  margin-top: 8px;
}
@media (max-width: 800px) {
  nav {
    max-height: 30dvh;
  }
}
</style>
