<script setup lang="ts">
import { NModal } from 'naive-ui'
import type { Schemas } from '@/api/client'
import WhyList from '@/ui/WhyList.vue'
import KeyList from './KeyList.vue'

/** How a figure came about, and the keys of the visit's screen. */
const figure = defineModel<Schemas['Explained'] | null>('figure', { required: true })
const keys = defineModel<boolean>('keys', { required: true })
</script>

<template>
  <NModal
    :show="!!figure"
    preset="card"
    style="max-width: 560px"
    title="Why?"
    @update:show="figure = null"
  >
    <WhyList v-if="figure" :figure="figure" />
  </NModal>
  <NModal v-model:show="keys" preset="card" style="max-width: 520px" title="Keys and words">
    <KeyList />
  </NModal>
</template>
