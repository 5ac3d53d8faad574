<script setup lang="ts">
import { NDrawer, NDrawerContent } from 'naive-ui'

/** A panel that comes up from below on a phone. */
defineProps<{ title: string; shown: boolean }>()
defineEmits<{ close: [] }>()
</script>

<template>
  <NDrawer :show="shown" placement="bottom" height="78%" @update:show="$emit('close')">
    <NDrawerContent :title="title" closable body-content-style="padding: 0">
      <slot />
    </NDrawerContent>
  </NDrawer>
</template>
