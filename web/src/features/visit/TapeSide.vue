<script setup lang="ts">
import type { Schemas } from '@/api/client'
import type { UseWritingReturn } from './useWriting'
import TapePanel from './TapePanel.vue'

/** The tape with what can be done to its lines. */
defineProps<{ page: Schemas['VisitPage']; writing: UseWritingReturn }>()
const emit = defineEmits<{ corrects: [] }>()
</script>

<template>
  <TapePanel
    :tape="page.tape"
    :pending="writing.pending.value"
    :writable="page.writable"
    :asks-why="writing.asksWhy.value"
    @correct="
      (entry) => {
        emit('corrects')
        writing.beginCorrection(entry)
      }
    "
    @strike="(entry, why) => writing.correctEntry(entry.id, null, why)"
    @restore="writing.restore"
    @discard="writing.discard"
  />
</template>
