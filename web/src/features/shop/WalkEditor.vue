<script setup lang="ts">
import { computed, ref } from 'vue'
import { checkWalk, getDocument, keepDocument } from '@/api/calls'
import type { Schemas } from '@/api/client'
import DocumentShell from './DocumentShell.vue'
import { useDocument } from './useDocument'
import {
  withHead,
  withMoved,
  withoutStop,
  withProved,
  withStop,
  withWord,
  type StopDocument,
  type WalkDocument,
} from './walkForm'
import WalkStopForm from './WalkStopForm.vue'

const { list, document, check, shipped, trouble, kept, why, open, change, keep } = useDocument<
  WalkDocument,
  Schemas['WalkCheck']
>('walk', {
  load: async (key) => (await getDocument('walk', key)) as unknown as WalkDocument,
  check: (walk) => checkWalk(walk),
  keep: (walk, reason) => keepDocument('walk', walk, reason),
})
const opened = ref('')
const json = computed(() => (document.value ? JSON.stringify(document.value, null, 1) : ''))
const rows = computed(() => new Map(check.value?.stops.map((row) => [row.key, row])))
const kinds = computed(() => list.value?.choices.unit_kinds ?? [])

/** A copy is for one kind of unit, the first one until another is chosen. */
function copy(): void {
  const kind = document.value?.kind || (kinds.value[0]?.key ?? '')
  if (document.value) change(withHead(document.value, 'kind', kind))
}
const head = (field: 'kind' | 'walk', event: Event) =>
  document.value &&
  change(withHead(document.value, field, (event.target as HTMLSelectElement).value))
function add(event: Event): void {
  const picked = (event.target as HTMLSelectElement).value
  const more = check.value?.more.find((one) => one.key === picked)
  if (document.value && more) change(withStop(document.value, more.stop as unknown as StopDocument))
  opened.value = picked
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
    none="Choose a walk at the left: the parts of a unit in the order in which they are looked at. A shipped one stays as it is: copy it for one kind of unit, then change the copy."
    locked="only a supervisor keeps a changed walk."
    @open="open"
    @change="(d) => change(d as WalkDocument)"
    @copy="copy"
    @keep="keep"
    @take="(d) => change(d as WalkDocument)"
  >
    <template v-if="document">
      <p v-if="!shipped" class="heads">
        <label>
          For units of the kind
          <select :value="document.kind" @change="head('kind', $event)">
            <option v-for="kind in kinds" :key="kind.key" :value="kind.key">{{ kind.name }}</option>
          </select>
        </label>
        <label>
          On visits for
          <select :value="document.walk" @change="head('walk', $event)">
            <option v-for="walk in check?.walks" :key="walk.key" :value="walk.key">
              {{ walk.name }}
            </option>
          </select>
        </label>
      </p>
      <ol>
        <li v-for="(stop, index) in document.stops" :key="stop.key" :data-stop="stop.key">
          <div class="stop">
            <button
              class="name"
              :aria-expanded="opened === stop.key"
              @click="opened = opened === stop.key ? '' : stop.key"
            >
              {{ rows.get(stop.key)?.name ?? stop.key }}
              <small v-if="rows.get(stop.key)?.there === false" class="muted">
                not on this kind: left out
              </small>
            </button>
            <template v-if="!shipped">
              <button
                class="btn"
                :disabled="!index"
                :aria-label="`${stop.key}: earlier`"
                @click="change(withMoved(document, index, -1))"
              >
                ↑
              </button>
              <button
                class="btn"
                :disabled="index === document.stops.length - 1"
                :aria-label="`${stop.key}: later`"
                @click="change(withMoved(document, index, 1))"
              >
                ↓
              </button>
              <button
                class="btn"
                :aria-label="`${stop.key}: take it out`"
                @click="change(withoutStop(document, index))"
              >
                Out
              </button>
            </template>
          </div>
          <WalkStopForm
            v-if="opened === stop.key && rows.get(stop.key)"
            :stop="stop"
            :row="rows.get(stop.key)!"
            :disabled="shipped"
            @word="(words, word) => change(withWord(document!, index, words, word))"
            @proved="change(withProved(document, index))"
          />
        </li>
      </ol>
      <label v-if="!shipped" class="more">
        One more stop, at the end
        <select :value="''" @change="add">
          <option value="">Choose what …</option>
          <option v-for="one in check?.more" :key="one.key" :value="one.key">{{ one.name }}</option>
        </select>
      </label>
    </template>
  </DocumentShell>
</template>

<style scoped src="./walkEditor.css"></style>
