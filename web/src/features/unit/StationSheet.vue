<script setup lang="ts">
import { computed } from 'vue'
import { NDrawer, NDrawerContent } from 'naive-ui'
import type { Schemas } from '@/api/client'
import StationDrawer from './StationDrawer.vue'

/** A station with all that was read there: from the right, on a phone from below. */
const props = defineProps<{
  /** The key of the station; "" for none. */
  chosen: string
  page: Schemas['VisitPage']
  narrow: boolean
}>()
const station = computed(() =>
  props.page.paths.flatMap((path) => path.stations).find((one) => one.key === props.chosen),
)
defineEmits<{ begin: [starter: string]; close: [] }>()
</script>

<template>
  <NDrawer
    :show="!!station"
    :width="420"
    height="78%"
    :placement="narrow ? 'bottom' : 'right'"
    @update:show="$emit('close')"
  >
    <NDrawerContent v-if="station" :title="station.name" closable>
      <StationDrawer
        :station="station"
        :earlier="page.earlier"
        :writable="page.writable"
        @begin="(starter) => $emit('begin', starter)"
      />
    </NDrawerContent>
  </NDrawer>
</template>
