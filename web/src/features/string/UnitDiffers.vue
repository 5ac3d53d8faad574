<script setup lang="ts">
import { computed, reactive } from 'vue'
import { changeCircuit, keepCircuitForModel } from '@/api/calls'
import type { Schemas } from '@/api/client'
import { useAsyncAction } from '@/api/useAsyncAction'
import ChipRow from '@/ui/ChipRow.vue'

/** The circuit of this very unit, put right on the spot: a device put in, a node named, a wire moved, the string begun blank. */
const props = defineProps<{ id: number; string: Schemas['StringOut']; decides: boolean }>()
const emit = defineEmits<{ changed: [] }>()
type Change = Schemas['CircuitChangeIn']['change']
const WAYS = [
  { key: 'insert', name: 'Put in a device' },
  { key: 'name', name: 'Name a node' },
  { key: 'move', name: 'Move a wire' },
  { key: 'choose', name: 'Another circuit' },
]
const ways = computed(() => (props.string.known ? WAYS : WAYS.slice(3)))
const draft = reactive({
  way: props.string.known ? 'insert' : 'choose',
  circuit: '',
  part: '',
  node: '',
  family: '',
  name: '',
  behind: 'before',
  end: '0',
})
const change = computed<Change | null>(() => {
  if (draft.way === 'insert')
    return draft.part && draft.family
      ? {
          what: 'insert',
          at: draft.part,
          family: draft.family,
          name: draft.name,
          behind: draft.behind === 'behind',
        }
      : null
  if (draft.way === 'choose') return draft.circuit ? { what: 'choose', key: draft.circuit } : null
  if (draft.way === 'name')
    return draft.node && draft.name ? { what: 'name', node: draft.node, name: draft.name } : null
  return draft.part && draft.node
    ? { what: 'move', part: draft.part, end: Number(draft.end), node: draft.node }
    : null
})
const { trouble, busy, run } = useAsyncAction()
const make = (made: Change) =>
  run(async () => {
    await changeCircuit(props.id, { change: made })
    draft.name = ''
    emit('changed')
  })
const keep = () =>
  run(async () => {
    await keepCircuitForModel(props.id)
    emit('changed')
  })
</script>

<template>
  <details class="differs">
    <summary>
      {{ string.own ? 'Put right on this unit' : 'This unit is wired differently' }}
    </summary>
    <ChipRow
      label="What"
      :options="ways"
      :chosen="draft.way"
      @choose="(key) => (draft.way = key)"
    />
    <div class="fields">
      <label v-if="draft.way === 'insert'">
        Device
        <select v-model="draft.family">
          <option value="">choose …</option>
          <option v-for="row in string.devices" :key="row.key" :value="row.key">
            {{ row.name }}
          </option>
        </select>
      </label>
      <label v-if="draft.way === 'insert'">
        Stands
        <select v-model="draft.behind">
          <option value="before">before</option>
          <option value="behind">behind</option>
        </select>
      </label>
      <label v-if="draft.way === 'choose'">
        Circuit
        <select v-model="draft.circuit">
          <option value="">choose …</option>
          <option v-for="row in string.circuits" :key="row.key" :value="row.key">
            {{ row.name }}
          </option>
        </select>
      </label>
      <label v-if="draft.way === 'insert' || draft.way === 'move'">
        Part
        <select v-model="draft.part">
          <option value="">choose …</option>
          <option v-for="row in string.parts" :key="row.key" :value="row.key">
            {{ row.name }}
          </option>
        </select>
      </label>
      <label v-if="draft.way === 'move'">
        Which end
        <select v-model="draft.end">
          <option value="0">first</option>
          <option value="1">second</option>
        </select>
      </label>
      <label v-if="draft.way === 'name' || draft.way === 'move'">
        {{ draft.way === 'move' ? 'Now joined to' : 'Node' }}
        <select v-model="draft.node">
          <option value="">choose …</option>
          <option v-for="row in string.nodes" :key="row.key" :value="row.key">
            {{ row.key }} · {{ row.name }}
          </option>
        </select>
      </label>
      <label v-if="draft.way === 'name' || draft.way === 'insert'">
        {{ draft.way === 'name' ? 'Wire colour, pin or terminal' : 'Called' }}
        <input v-model="draft.name" maxlength="80" />
      </label>
      <button class="btn strong" :disabled="busy || !change" @click="change && make(change)">
        Put right
      </button>
    </div>
    <p v-if="trouble" class="trouble" role="alert">{{ trouble }}</p>
    <p class="ways">
      <button v-if="string.known" class="link" :disabled="busy" @click="make({ what: 'blank' })">
        Begin the string blank
      </button>
      <button v-if="string.own" class="link" :disabled="busy" @click="make({ what: 'as_model' })">
        As the model again
      </button>
      <button v-if="string.own && decides" class="link" :disabled="busy" @click="keep">
        Keep for every unit of this model
      </button>
    </p>
  </details>
</template>

<style scoped src="./unitDiffers.css"></style>
