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
]
const draft = reactive({
  way: 'insert',
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
      {{ string.own ? 'Put right on this unit' : 'This unit is wired otherwise' }}
    </summary>
    <ChipRow
      label="What"
      :options="WAYS"
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
      <label v-if="draft.way !== 'name'">
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
      <label v-if="draft.way !== 'insert'">
        {{ draft.way === 'move' ? 'Now joined to' : 'Node' }}
        <select v-model="draft.node">
          <option value="">choose …</option>
          <option v-for="row in string.nodes" :key="row.key" :value="row.key">
            {{ row.key }} · {{ row.name }}
          </option>
        </select>
      </label>
      <label v-if="draft.way !== 'move'">
        {{ draft.way === 'name' ? 'Wire colour, pin or terminal' : 'Called' }}
        <input v-model="draft.name" maxlength="80" />
      </label>
      <button class="btn strong" :disabled="busy || !change" @click="change && make(change)">
        Put right
      </button>
    </div>
    <p v-if="trouble" class="trouble" role="alert">{{ trouble }}</p>
    <p class="ways">
      <button class="link" :disabled="busy" @click="make({ what: 'blank' })">
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

<style scoped>
.differs {
  padding: 0 16px;
  border: 1.5px solid var(--line);
  border-radius: 8px;
  background: var(--plate);
}
.differs[open] {
  padding-bottom: 12px;
}
summary {
  min-height: 44px;
  line-height: 44px;
  font-weight: 600;
  cursor: pointer;
}
.fields {
  display: flex;
  flex-wrap: wrap;
  gap: 8px 14px;
  align-items: end;
  margin-top: 8px;
}
label {
  display: grid;
  gap: 2px;
}
select,
input {
  min-height: 44px;
  max-width: 300px;
  padding: 0 10px;
  border: 1.5px solid var(--line);
  border-radius: 6px;
  background: var(--paper);
  color: var(--ink);
  font: inherit;
}
.trouble {
  color: var(--out);
  font-weight: 500;
}
.ways {
  display: flex;
  flex-wrap: wrap;
  gap: 4px 18px;
  margin-top: 8px;
}
.link {
  min-height: 44px;
  padding: 0;
  border: 0;
  background: none;
  color: var(--in);
  text-decoration: underline dotted;
}
</style>
