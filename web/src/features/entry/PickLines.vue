<script setup lang="ts">
import { computed, ref } from 'vue'
import type { Schemas } from '@/api/client'
import ChipRow from '@/ui/ChipRow.vue'
import FileButton from '@/ui/FileButton.vue'
import { PICTURES } from '@/ui/pictures'
import { levelState } from '@/ui/levels'
import StateMark from '@/ui/StateMark.vue'
import type { ListName } from './PickList.vue'

/** One part: place, size and how it was seen where that matters, then what it is like, or what was done to it. */
const props = defineProps<{ part: Schemas['PartWords']; list: ListName }>()
const emit = defineEmits<{
  write: [line: string]
  begin: [line: string]
  photo: [file: File, station: string]
}>()
const said = ref<Record<string, string>>({})
const lines = computed(() => props.part[props.list])
const beside = computed(() => (props.list === 'found' ? props.part.beside : []))
const options = (words: string[]) => words.map((word) => ({ key: word, name: word }))
/** A chip that is touched again is taken back. */
function say(label: string, word: string): void {
  said.value = { ...said.value, [label]: said.value[label] === word ? '' : word }
}
/** What shuts the unit down, and what wants a place, is read back in the bar before it is written. */
function take(line: Schemas['WordOut']): void {
  const words = beside.value.map((one) => said.value[one.label]).filter(Boolean)
  const whole = [line.line, ...words].join(' ')
  if (line.line.endsWith(' ') || levelState(line.level) === 'out') emit('begin', whole)
  else emit('write', whole)
}
</script>

<template>
  <div class="head">
    <h3>{{ part.name }}</h3>
    <FileButton
      class="btn"
      :accept="PICTURES"
      capture="environment"
      @file="(file) => emit('photo', file, lines[0]?.station ?? '')"
    >
      Photo
    </FileButton>
  </div>
  <div v-if="beside.length" class="beside">
    <ChipRow
      v-for="one in beside"
      :key="one.label"
      :label="one.label"
      :options="options(one.words)"
      :chosen="said[one.label] ?? ''"
      @choose="(word) => say(one.label, word)"
    />
  </div>
  <div class="lines">
    <button v-for="line in lines" :key="line.line" class="line" @click="take(line)">
      <StateMark
        v-if="list === 'found'"
        :state="line.level ? levelState(line.level) : 'in'"
        :size="14"
      />
      {{ line.short }}
    </button>
  </div>
</template>

<style scoped>
.head {
  display: flex;
  justify-content: space-between;
  align-items: center;
  gap: 10px;
}
h3 {
  margin: 0;
  font-size: 19px;
}
.beside {
  display: grid;
  gap: 6px;
  margin-top: 8px;
}
.lines {
  display: grid;
  grid-template-columns: repeat(2, minmax(0, 1fr));
  gap: 7px;
  margin-top: 10px;
}
.line {
  display: flex;
  align-items: center;
  gap: 8px;
  min-height: 48px;
  padding: 4px 10px;
  border: 1.5px solid var(--ink);
  border-radius: 7px;
  background: none;
  font-weight: 500;
  line-height: 1.15;
  text-align: left;
}
</style>
