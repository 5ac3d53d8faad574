<script setup lang="ts">
import { ref, watch } from 'vue'
import type { Schemas } from '@/api/client'
import type { Named } from './useDocument'

const props = defineProps<{ list?: Schemas['ShopList']; document: Named | null; json: string; shipped: boolean; kept: boolean; trouble: string; problem: Schemas['ProblemOut'] | null; none: string; locked: string }>()
const why = defineModel<string>('why', { required: true })
const emit = defineEmits<{ open: [key: string]; change: [document: Named]; copy: []; keep: []; take: [document: unknown] }>()
const text = ref('')
const unread = ref('')
watch(() => props.json, (now) => { text.value = now; unread.value = '' }, { immediate: true })

function take(typed: string): void {
  try {
    emit('take', JSON.parse(typed))
    unread.value = ''
  } catch (error) {
    unread.value = `This is no JSON: ${String((error as Error).message)}`
  }
}
async function openFile(event: Event): Promise<void> {
  const file = (event.target as HTMLInputElement).files?.[0]
  if (file) take(await file.text())
}
function save(): void {
  const link = window.document.createElement('a')
  link.href = URL.createObjectURL(new Blob([props.json], { type: 'application/json' }))
  link.download = `${props.document?.key ?? 'document'}.json`
  link.click()
  URL.revokeObjectURL(link.href)
}
const value = (event: Event) => (event.target as HTMLInputElement).value
</script>

<template>
  <nav aria-label="Documents">
    <template v-for="own in [true, false]" :key="String(own)">
      <h2 v-if="list?.documents.some((c) => c.shipped !== own)">{{ own ? 'Our own' : 'Shipped' }}</h2>
      <button v-for="c in list?.documents.filter((row) => row.shipped !== own)" :key="c.key" :class="{ on: c.key === document?.key }" @click="emit('open', c.key)">{{ c.name }}<small v-if="c.used_by.length || c.changed_by">{{ [c.used_by.join(', '), c.changed_by].filter(Boolean).join(' · ') }}</small></button>
    </template>
    <label class="btn file">Open a JSON file<input type="file" accept=".json,application/json" @change="openFile" /></label>
  </nav>
  <main v-if="!document" class="none"><p>{{ none }}</p><p v-if="trouble" class="problem" role="alert">{{ trouble }}</p><p v-if="unread" class="problem" role="alert">{{ unread }}</p></main>
  <main v-else>
    <div class="head">
      <label>Name<input :value="document.name" :disabled="shipped" @change="emit('change', { ...document!, name: value($event) })" /></label>
      <label>Key<input :value="document.key" :disabled="shipped" @change="emit('change', { ...document!, key: value($event) })" /></label>
      <button class="btn" :class="{ strong: shipped }" @click="emit('copy')">Copy it, to change</button>
      <label v-if="!shipped && !kept">Why it is changed<input v-model="why" maxlength="300" placeholder="kept with this version" /></label>
      <button v-if="!shipped" class="btn strong" :disabled="!list?.writable || kept || !!problem" @click="emit('keep')">{{ kept ? 'Kept' : 'Keep it' }}</button>
      <button class="btn" @click="save">Save as JSON</button>
    </div>
    <p v-if="list && !list.writable" class="muted">Looking and trying is free to all; {{ locked }}</p>
    <p v-if="trouble" class="problem" role="alert">{{ trouble }}</p>
    <p v-if="problem" class="problem" role="alert">{{ problem.text }}</p>
    <slot />
    <details><summary>All of it as JSON</summary>
      <p v-if="unread" class="problem" role="alert">{{ unread }}</p>
      <textarea v-model="text" :disabled="shipped" rows="24" spellcheck="false" aria-label="The document as JSON" class="json" @change="take(text)" />
    </details>
  </main>
</template>

<style scoped>
nav { overflow-y: auto; padding: 14px; display: flex; flex-direction: column; gap: 4px; border-right: 1.5px solid var(--line); background: var(--plate) } nav > button { flex: none; min-height: 44px; text-align: left; border: 1.5px solid transparent; border-radius: 6px; background: none; padding: 6px 10px; line-height: 1.2 } nav > button:hover { border-color: var(--line) } nav .on { background: var(--bar); color: var(--bar-ink) } nav small { display: block; opacity: .75 } h2 { font-size: 17px; margin: 8px 0 2px }
.file { display: grid; place-content: center; position: relative; margin-top: 8px } .file input { position: absolute; inset: 0; opacity: 0; cursor: pointer } main { overflow: auto; padding: 16px 20px 40px; min-width: 0 } main > * + *, main :deep(> * + *) { margin-top: 12px } .none { display: grid; place-content: center; text-align: center; max-width: 50ch; margin: auto }
.head { display: flex; flex-wrap: wrap; gap: 10px 14px; align-items: end } .head label { display: grid; gap: 2px; font-weight: 500 } .head label:first-child { flex: 1; min-width: 220px } .head input { width: 100% }
.json { font: 14px/1.35 ui-monospace, monospace; width: 100%; resize: vertical; padding: 6px 10px; border: 1.5px solid var(--line); border-radius: 6px; background: var(--plate); color: var(--ink) } summary { min-height: 44px; display: flex; align-items: center; cursor: pointer; color: var(--in) }
main :deep(input), main :deep(select) { font: inherit; min-height: 44px; padding: 6px 10px; border: 1.5px solid var(--line); border-radius: 6px; background: var(--plate); color: var(--ink) } main :deep(input:disabled), main :deep(select:disabled) { opacity: .75 }
.problem { padding: 9px 14px; border-left: 5px solid var(--out); background: var(--danger-ground) }
@media (max-width: 800px) { nav { max-height: 30dvh } }
</style>
