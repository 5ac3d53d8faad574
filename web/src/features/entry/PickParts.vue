<script setup lang="ts">
import { computed, ref } from 'vue'
import type { Schemas } from '@/api/client'
import { levelState } from '@/ui/levels'
import StateMark from '@/ui/StateMark.vue'

/** The parts of the unit: the usual ones for such a visit first, then path by path. What is searched for narrows them. */
const props = defineProps<{
  parts: Schemas['PartWords'][]
  paths: Schemas['PathName'][]
  station: string
  search: string
  hits: Schemas['WordOut'][]
}>()
const emit = defineEmits<{ choose: [part: string]; write: [line: string]; begin: [line: string] }>()
const MOST_HITS = 40
const USUAL = 'usual'
const ELSEWHERE = 'elsewhere'
const path = ref(USUAL)
const groups = computed(() => [
  { key: USUAL, name: 'Usual' },
  ...props.paths,
  { key: ELSEWHERE, name: 'Other' },
])
const isIn = (part: Schemas['PartWords'], group: string) =>
  group === USUAL ? part.usual : (part.path || ELSEWHERE) === group
/** Where the hand is just now comes first. */
const isHere = (part: Schemas['PartWords']) =>
  !!props.station && part.found.some((line) => line.station === props.station)
const shown = computed(() => {
  const found = props.search
    ? props.parts.filter((part) => part.name.toLowerCase().includes(props.search))
    : props.parts.filter((part) => isIn(part, path.value))
  return [...found.filter(isHere), ...found.filter((part) => !isHere(part))]
})
function take(line: Schemas['WordOut']): void {
  if (line.line.endsWith(' ') || levelState(line.level) === 'out') emit('begin', line.line)
  else emit('write', line.line)
}
</script>

<template>
  <nav v-if="!search" class="paths" aria-label="Paths">
    <button
      v-for="group in groups"
      :key="group.key"
      class="path"
      :class="{ on: path === group.key }"
      :aria-pressed="path === group.key"
      @click="path = group.key"
    >
      {{ group.name }}
    </button>
  </nav>
  <div class="parts">
    <button
      v-for="part in shown"
      :key="part.key"
      class="part"
      :style="{ '--path': `var(--${part.path || 'line'})` }"
      @click="emit('choose', part.key)"
    >
      {{ part.name }}
    </button>
  </div>
  <ul v-if="hits.length">
    <li v-for="line in hits.slice(0, MOST_HITS)" :key="line.line">
      <button class="hit" @click="take(line)">
        <StateMark v-if="line.level" :state="levelState(line.level)" :size="14" />
        {{ line.text }}
      </button>
    </li>
  </ul>
  <p v-if="!shown.length && !hits.length" class="muted">
    Nothing of that name. A note can say anything: note …
  </p>
</template>

<style scoped>
.paths {
  display: flex;
  gap: 6px;
  margin: 10px 0;
  overflow-x: auto;
}
.path {
  flex: none;
  min-height: 44px;
  min-width: 44px;
  padding: 0 11px;
  border: 1.5px solid var(--line);
  border-radius: 6px;
  background: none;
}
.path.on {
  border-color: var(--bar);
  background: var(--bar);
  color: var(--bar-ink);
}
.parts {
  display: grid;
  grid-template-columns: repeat(2, minmax(0, 1fr));
  gap: 7px;
  margin-top: 10px;
}
.part {
  min-height: 48px;
  padding: 4px 10px;
  border: 1.5px solid var(--line);
  border-left: 6px solid var(--path);
  border-radius: 7px;
  background: none;
  font-weight: 500;
  line-height: 1.15;
  text-align: left;
}
ul {
  margin: 12px 0 0;
  padding: 0;
  list-style: none;
}
.hit {
  display: flex;
  align-items: center;
  gap: 8px;
  width: 100%;
  min-height: 46px;
  border: 0;
  border-bottom: 1px dashed var(--line);
  background: none;
  text-align: left;
}
</style>
