<script setup lang="ts">
import normal from '@fontsource/barlow-semi-condensed/files/barlow-semi-condensed-latin-400-normal.woff2?url'
import bold from '@fontsource/barlow-semi-condensed/files/barlow-semi-condensed-latin-600-normal.woff2?url'
import { keepPreviousData, useQuery } from '@tanstack/vue-query'
import { computed, ref } from 'vue'
import { getPreview, keys } from '@/api/calls'
import type { ApiError, Schemas } from '@/api/client'
import Card from '@/ui/Card.vue'
import { PREVIEWED, titleOf, type Previewed } from './papers'

/** What a paper would say if the visit were closed now. It is shown in a frame that runs nothing. */
const props = defineProps<{ page: Schemas['VisitPage'] }>()
const kind = ref<Previewed>('customer')
const { data, error } = useQuery<Schemas['PreviewOut'], ApiError>({
  queryKey: computed(() => keys.preview(props.page.id, props.page.version, kind.value)),
  queryFn: () => getPreview(props.page.id, kind.value),
  placeholderData: keepPreviousData,
})
/** In the frame the paper has the page's fonts, and a margin in the place of its sheets'. */
const font = (weight: number, url: string) =>
  `@font-face { font-family: Barlow; font-weight: ${weight}; src: url(${url}) }`
const style = `<style>${font(400, normal)}${font(600, bold)}${font(700, bold)} body { margin: 14px }</style>`
const html = computed(() => data.value?.html.replace('</head>', `${style}</head>`))
</script>

<template>
  <Card title="As it would be printed now">
    <p class="kinds" role="group" aria-label="Which paper">
      <button
        v-for="one in PREVIEWED"
        :key="one"
        class="btn"
        :class="{ on: one === kind }"
        :aria-pressed="one === kind"
        @click="kind = one"
      >
        {{ titleOf(`${one}.pdf`) }}
      </button>
    </p>
    <p v-if="error" class="trouble" role="alert">{{ error.message }}</p>
    <iframe
      v-else-if="html"
      :srcdoc="html"
      sandbox="allow-same-origin"
      :title="`${titleOf(`${kind}.pdf`)}, as it would be printed now`"
    ></iframe>
    <p v-else class="muted setting">Setting the paper …</p>
  </Card>
</template>

<style scoped>
.kinds {
  display: flex;
  flex-wrap: wrap;
  gap: 8px;
}
.on {
  border-color: var(--bar);
  background: var(--bar);
  color: var(--bar-ink);
}
/* As high as the paper that comes: what stands below is not moved away from under a finger. */
.setting {
  min-height: 430px;
}
iframe {
  width: 100%;
  height: 430px;
  border: 1px solid var(--line);
  border-radius: 4px;
  background: white;
}
.trouble {
  color: var(--out);
}
</style>
