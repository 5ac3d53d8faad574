<script setup lang="ts">
import { computed } from 'vue'
import { checkKind, getDocument, keepDocument } from '@/api/calls'
import type { Schemas } from '@/api/client'
import DocumentShell from './DocumentShell.vue'
import KindDrawing from './KindDrawing.vue'
import type { KindDocument } from './kindForm'
import MustShow from './MustShow.vue'
import StationTable from './StationTable.vue'
import { useDocument } from './useDocument'

const { list, document, check, shipped, trouble, kept, why, open, change, copy, keep } =
  useDocument<KindDocument, Schemas['KindCheck']>('kind', {
    load: async (key) => (await getDocument('kind', key)) as unknown as KindDocument,
    check: (document) => checkKind(document),
    keep: (document, why) => keepDocument('kind', document, why),
  })
const json = computed(() => (document.value ? JSON.stringify(document.value, null, 1) : ''))
</script>

<template>
  <DocumentShell
    v-model:why="why"
    :list="list"
    :document="document"
    :json="json"
    :shipped="shipped"
    :kept="kept"
    :trouble="trouble"
    :problem="check?.problem ?? null"
    none="Choose a kind of unit at the left: its stations, paths, ties, and what a visit must show. A shipped one stays as it is: copy it, then change the copy."
    locked="only a supervisor keeps a changed kind."
    @open="open"
    @change="(d) => change(d as KindDocument)"
    @copy="copy"
    @keep="keep"
    @take="(d) => change(d as KindDocument)"
  >
    <KindDrawing v-if="check" :check="check" />
    <template v-if="document">
      <section v-for="(path, p) in document.paths" :key="path.key">
        <h2>
          {{ path.name }}
          <span class="muted">stations from top to bottom</span>
        </h2>
        <StationTable
          :document="document"
          :path="p"
          :shipped="shipped"
          :blamed="check?.problem?.element ?? ''"
          :quantities="list?.choices.quantities ?? []"
          @change="change"
        />
      </section>
      <MustShow :document="document" :shipped="shipped" :choices="list?.choices" @change="change" />
    </template>
  </DocumentShell>
</template>

<style scoped>
section {
  display: grid;
  gap: 8px;
}
h2 {
  font-size: 17px;
}
h2 span {
  font-weight: 400;
  font-size: 14.5px;
}
</style>
