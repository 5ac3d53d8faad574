<script setup lang="ts">
import { NDrawer, NDrawerContent, NInput } from 'naive-ui'
import { computed, ref, watch } from 'vue'
import type { Schemas } from '@/api/client'
import PickLines from './PickLines.vue'
import PickParts from './PickParts.vue'
import { useWords } from './useWords'

export type ListName = 'done' | 'found' | 'jumpers'
/** Path, part, then what it is like or what was done: two or three touches write a line. `at`: the part that it opens at. */
const props = defineProps<{
  visit: number
  list: ListName | null
  at: string
  station: string
  narrow: boolean
}>()
const emit = defineEmits<{
  write: [line: string]
  begin: [line: string]
  photo: [file: File, station: string]
  close: []
}>()
const TITLES = {
  done: 'What was done?',
  found: 'What was found?',
  jumpers: 'Left abnormal, proved',
}
const { data: words } = useWords(() => props.visit)
const search = ref('')
const chosen = ref('')
watch(
  () => [props.list, props.at],
  () => ([search.value, chosen.value] = ['', props.at]),
)
const linesOf = (part: Schemas['PartWords']) => (props.list ? part[props.list] : [])
const parts = computed(() => (words.value?.parts ?? []).filter((part) => linesOf(part).length))
const part = computed(() => words.value?.parts.find((one) => one.key === chosen.value))
const wanted = computed(() => search.value.trim().toLowerCase())
/** Lines that what is searched for stands in; they are offered whole. */
const hits = computed(() =>
  wanted.value.length < 2
    ? []
    : parts.value
        .flatMap(linesOf)
        .filter((line) => `${line.text} ${line.line}`.toLowerCase().includes(wanted.value)),
)
</script>

<template>
  <NDrawer
    :show="list !== null"
    :width="440"
    height="80%"
    :placement="narrow ? 'bottom' : 'right'"
    @update:show="emit('close')"
  >
    <NDrawerContent :title="list ? TITLES[list] : ''" closable>
      <template v-if="list && part">
        <button class="btn back" @click="chosen = ''">‹ All parts</button>
        <PickLines
          :key="part.key"
          :part="part"
          :list="list"
          @write="(line) => emit('write', line)"
          @begin="(line) => emit('begin', line)"
          @photo="(file, station) => emit('photo', file, station)"
        />
      </template>
      <template v-else-if="list">
        <NInput v-model:value="search" placeholder="Search parts and lines" clearable />
        <PickParts
          :parts="parts"
          :paths="words?.paths ?? []"
          :station="station"
          :search="wanted"
          :hits="hits"
          @choose="(key) => (chosen = key)"
          @write="(line) => emit('write', line)"
          @begin="(line) => emit('begin', line)"
        />
        <template v-if="list === 'jumpers'">
          <h3>At another place</h3>
          <div class="places">
            <button
              v-for="line in words?.elsewhere ?? []"
              :key="line.line"
              class="btn"
              @click="emit('begin', line.line)"
            >
              {{ line.short }} …
            </button>
          </div>
        </template>
      </template>
    </NDrawerContent>
  </NDrawer>
</template>

<style scoped>
.back {
  margin-bottom: 10px;
}
h3 {
  margin: 16px 0 6px;
  font-size: 16px;
}
.places {
  display: grid;
  grid-template-columns: repeat(2, minmax(0, 1fr));
  gap: 7px;
}
</style>
