<script setup lang="ts">
import type { Schemas } from '@/api/client'
import type { Leads } from './leads'
import RungNode from './RungNode.vue'
import RungPart from './RungPart.vue'

/** One rung of a circuit from its supply to its load: nodes and the parts between them. */
const props = defineProps<{ rung: Schemas['RungOut']; leads: Leads }>()
const emit = defineEmits<{ node: [key: string]; part: [key: string, a: string, b: string] }>()
const leadOn = (key: string) =>
  props.leads[0] === key ? 'red' : props.leads[1] === key ? 'black' : ''
const ends = (i: number): [string, string] => [
  props.rung.nodes[i]!.key,
  props.rung.nodes[i + 1]!.key,
]
</script>

<template>
  <ol class="rung" :style="{ '--count': rung.parts.length }">
    <template v-for="(node, i) in rung.nodes" :key="node.key">
      <RungNode :node="node" :lead="leadOn(node.key)" @touch="emit('node', node.key)" />
      <RungPart
        v-if="rung.parts[i]"
        :part="rung.parts[i]!"
        :across="`v ${ends(i).join(' ')}`"
        @touch="emit('part', rung.parts[i]!.key, ...ends(i))"
      />
    </template>
  </ol>
</template>

<style scoped>
.rung {
  display: flex;
  align-items: flex-start;
  margin: 0;
  padding: 0;
  list-style: none;
}
@media (max-width: 800px) {
  .rung {
    flex-direction: column;
    padding: 0 10px;
  }
}
</style>
