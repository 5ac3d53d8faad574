<script setup lang="ts">
import { computed, toRaw } from 'vue'
import { checkModel, getModelForm, keepModel } from '@/api/calls'
import type { Schemas } from '@/api/client'
import CodeChartForm from './CodeChartForm.vue'
import DocumentShell from './DocumentShell.vue'
import ManualForm from './ManualForm.vue'
import ModelBasics from './ModelBasics.vue'
import PlateForm from './PlateForm.vue'
import { useDocument } from './useDocument'

type Fields = Schemas['ModelFields']
const { list, document, check, shipped, trouble, kept, why, open, change, copy, keep } =
  useDocument<Fields, Schemas['ModelCheck']>('model', {
    load: async (key) => {
      const form = await getModelForm(key)
      if (!form.fields) throw new Error(form.problem?.text ?? 'This model cannot be read.')
      return form.fields
    },
    check: (fields) => checkModel({ fields, document: null, reason: '' }),
    keep: keepModel,
  })
const json = computed(() => (document.value ? JSON.stringify(toRaw(document.value), null, 1) : ''))
const checked = computed(() => check.value?.fields ?? null)
const set = (changes: Partial<Fields>) => change({ ...document.value!, ...changes })

/** A JSON file is a model document; its form comes back from the server. */
async function take(given: unknown): Promise<void> {
  const form = given as Fields
  if (Array.isArray(form.plate)) return change(form)
  const asked = { document: given as Record<string, unknown>, fields: null, reason: '' }
  const read = await checkModel(asked)
  if (read.fields) change(read.fields)
  else trouble.value = read.problem?.text ?? 'This model cannot be read.'
}
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
    none="A model carries plate, manual limits and code chart once; its units refer to it. Choose one at the left."
    locked="only a supervisor keeps a changed model."
    @open="open"
    @change="(d) => change(d as Fields)"
    @copy="copy"
    @keep="keep"
    @take="take"
  >
    <template v-if="document">
      <ModelBasics :fields="document" :choices="list?.choices" @set="set" />
      <h2>
        Plate
        <span class="muted">
          as it stands on the plate; another unit may be written after the number. Empty: not on the
          plate, asked for when it is first needed.
        </span>
      </h2>
      <PlateForm
        :rows="document.plate"
        :checked="checked?.plate ?? []"
        @rows="(plate) => set({ plate })"
      />
      <h2>
        Limits of its manual
        <span class="muted">before house rules and defaults, after the plate</span>
      </h2>
      <ManualForm
        :rows="document.manual"
        :checked="checked?.manual ?? []"
        :quantities="list?.choices.quantities ?? []"
        @rows="(manual) => set({ manual })"
      />
      <h2>
        Code chart
        <span class="muted">
          as the chart on its door says: 2 4, L S S, 3 red 1 amber, E13. Empty: the circuit’s own
          chart.
        </span>
      </h2>
      <CodeChartForm
        :rows="document.codes"
        :states="check?.states ?? []"
        @rows="(codes) => set({ codes })"
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
</style>
