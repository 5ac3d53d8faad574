<script setup lang="ts">
import { useQuery } from '@tanstack/vue-query'
import { useRouter } from 'vue-router'
import type { ApiError, Schemas } from '@/api/client'
import { firmKeys, getDoor } from '@/api/firm'
import DoorView from '@/features/door/DoorView.vue'
import ScreenHead from '@/parts/head/ScreenHead.vue'

const props = defineProps<{ id: number }>()
const router = useRouter()
const { data: door } = useQuery<Schemas['DoorOut'], ApiError>({
  queryKey: firmKeys.door(props.id),
  queryFn: () => getDoor(props.id),
})
</script>

<template>
  <div>
    <ScreenHead name="A new unit" :line="door?.site.title ?? ''" />
    <main id="main" tabindex="-1">
      <DoorView :site="id" @made="(unit) => router.push(`/units/${unit}`)" />
    </main>
  </div>
</template>

<style scoped>
main {
  max-width: 760px;
  margin: 0 auto;
  padding: 14px 16px 60px;
}
</style>
