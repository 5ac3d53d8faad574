<script setup lang="ts">
import { ref, watch } from 'vue'
import type { Schemas } from '@/api/client'
import DocumentHead from './DocumentHead.vue'
import DocumentList from './DocumentList.vue'
import type { Named } from './useDocument'

/** What every editor of the shop has: the list, the head, the document as JSON. */
const props = defineProps<{
  list?: Schemas['ShopList']
  document: Named | null
  json: string
  shipped: boolean
  kept: boolean
  trouble: string
  problem: Schemas['ProblemOut'] | null
  none: string
  locked: string
}>()
const why = defineModel<string>('why', { required: true })
const emit = defineEmits<{
  open: [key: string]
  change: [document: Named]
  copy: []
  keep: []
  take: [document: unknown]
}>()
const text = ref('')
const unread = ref('')
watch(
  () => props.json,
  (now) => {
    text.value = now
    unread.value = ''
  },
  { immediate: true },
)

function take(typed: string): void {
  try {
    emit('take', JSON.parse(typed))
    unread.value = ''
  } catch (error) {
    unread.value = `This is not valid JSON: ${String((error as Error).message)}`
  }
}
const takeFile = async (file: File) => take(await file.text())

function save(): void {
  const link = window.document.createElement('a')
  link.href = URL.createObjectURL(new Blob([props.json], { type: 'application/json' }))
  link.download = `${props.document?.key ?? 'document'}.json`
  link.click()
  URL.revokeObjectURL(link.href)
}
</script>

<template>
  <DocumentList
    :list="list"
    :chosen="document?.key ?? ''"
    @open="(key) => emit('open', key)"
    @file="takeFile"
  />
  <main v-if="!document" id="main" tabindex="-1" class="none">
    <p>{{ none }}</p>
    <p v-if="trouble" class="problem" role="alert">{{ trouble }}</p>
    <p v-if="unread" class="problem" role="alert">{{ unread }}</p>
  </main>
  <main v-else id="main" tabindex="-1">
    <DocumentHead
      v-model:why="why"
      :document="document"
      :shipped="shipped"
      :kept="kept"
      :keepable="!!list?.writable && !kept && !problem"
      @change="(named) => emit('change', named)"
      @copy="emit('copy')"
      @keep="emit('keep')"
      @save="save"
    />
    <p v-if="list && !list.writable" class="muted">
      Looking and trying is free to all; {{ locked }}
    </p>
    <p v-if="trouble" class="problem" role="alert">{{ trouble }}</p>
    <p v-if="problem" class="problem" role="alert">{{ problem.text }}</p>
    <slot />
    <details>
      <summary>All of it as JSON</summary>
      <p v-if="unread" class="problem" role="alert">{{ unread }}</p>
      <textarea
        v-model="text"
        :disabled="shipped"
        rows="24"
        spellcheck="false"
        aria-label="The document as JSON"
        class="json"
        @change="take(text)"
      />
    </details>
  </main>
</template>

<style scoped src="./documentShell.css"></style>
