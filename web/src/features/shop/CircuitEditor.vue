<script setup lang="ts">
import { computed, ref, watch } from 'vue'
import { checkCircuit, getDocument, keepDocument } from '@/api/calls'
import type { Schemas } from '@/api/client'
import CircuitDrawing from './CircuitDrawing.vue'
import { nodesOf, nodesText, type CircuitDocument } from './circuitForm'
import DocumentShell from './DocumentShell.vue'
import PartsForm from './PartsForm.vue'
import { useDocument } from './useDocument'

const state = ref('')
const { list, document, check, shipped, trouble, kept, why, open, change, copy, keep, recheck } =
  useDocument<CircuitDocument, Schemas['CircuitCheck']>('circuit', {
    load: async (key) => (await getDocument('circuit', key)) as unknown as CircuitDocument,
    check: (document) => checkCircuit({ document, state: state.value, reason: '' }),
    keep: (document, why) => keepDocument('circuit', document, why),
  })
watch(state, recheck)
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
    none="Choose a circuit at the left. A shipped one stays as it is: copy it, then change the copy."
    locked="only a supervisor keeps a changed circuit."
    @open="open"
    @change="(d) => change(d as CircuitDocument)"
    @copy="copy"
    @keep="keep"
    @take="(d) => change(d as CircuitDocument)"
  >
    <CircuitDrawing v-if="check && !check.problem" :check="check" @state="(key) => (state = key)" />
    <template v-if="document">
      <h2>Parts</h2>
      <PartsForm
        :document="document"
        :kinds="list?.choices.kinds ?? []"
        :families="list?.choices.families ?? []"
        :blamed="check?.problem?.element ?? ''"
        :locked="shipped"
        @change="change"
      />
      <h2>
        Nodes
        <span class="muted">one a line: key = name</span>
      </h2>
      <textarea
        :value="nodesText(document.nodes)"
        :disabled="shipped"
        rows="8"
        aria-label="Nodes"
        @change="
          change({ ...document!, nodes: nodesOf(($event.target as HTMLTextAreaElement).value) })
        "
      />
    </template>
  </DocumentShell>
</template>

<style scoped>
h2 {
  font-size: 17px;
}
h2 span {
  font-weight: 400;
  font-size: 14.5px;
}
textarea {
  font: inherit;
  width: 100%;
  resize: vertical;
  padding: 6px 10px;
  border: 1.5px solid var(--line);
  border-radius: 6px;
  background: var(--plate);
  color: var(--ink);
}
</style>
