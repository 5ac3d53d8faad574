<script setup lang="ts">
import { computed, ref } from 'vue'
import { sendBundle } from '@/api/calls'
import type { Schemas } from '@/api/client'
import { useAsyncAction } from '@/api/useAsyncAction'
import Card from '@/ui/Card.vue'
import FileButton from '@/ui/FileButton.vue'
import { PAPERS, titleOf } from './papers'

/** Papers and files of the visit; a bundle can be taken in while it is open. */
const props = defineProps<{ page: Schemas['VisitPage']; scheme: string }>()
const emit = defineEmits<{ page: [page: Schemas['VisitPage']] }>()
const taken = ref('')
const { trouble, run } = useAsyncAction()
const digests = computed(() =>
  props.page.close.papers
    .map((paper) => `${titleOf(paper.file)} ${paper.sha256.slice(0, 12)}…`)
    .join(' · '),
)

const takeBundle = (file: File) =>
  run(async () => {
    taken.value = ''
    const before = props.page.tape.length
    const page = await sendBundle(props.page.id, file, () => undefined)
    taken.value = `${page.tape.length - before} new entries were taken in from ${file.name}.`
    emit('page', page)
  })
</script>

<template>
  <Card title="Papers" :aside="scheme ? `on them: ${scheme}` : ''">
    <div class="files">
      <a
        v-for="[file, title] in PAPERS"
        :key="file"
        class="btn"
        :href="`/api/visits/${page.id}/${file}`"
        target="_blank"
        rel="noopener"
      >
        {{ title }}
      </a>
      <RouterLink class="btn" :to="`/units/${page.unit_id}`">
        Record of the unit, customer’s link
      </RouterLink>
      <FileButton
        v-if="page.writable"
        class="btn"
        accept=".json,application/json"
        @file="takeBundle"
      >
        Take in a bundle
      </FileButton>
    </div>
    <p v-if="trouble || taken" role="status" class="taken">{{ trouble || taken }}</p>
    <p v-if="page.close.papers.length" class="kept muted">
      Papers are kept as they were printed at the close, each with its SHA-256: {{ digests }}
    </p>
  </Card>
</template>

<style scoped>
.files {
  display: flex;
  flex-wrap: wrap;
  gap: 10px;
  align-items: center;
}
.taken {
  font-weight: 500;
}
</style>
