<script setup lang="ts">
import type { Schemas } from '@/api/client'
import StateMark from '@/ui/StateMark.vue'
import type { Leads } from './useString'

defineProps<{ rung: Schemas['RungOut']; leads: Leads }>()
defineEmits<{ node: [key: string]; part: [key: string, a: string, b: string] }>()
</script>

<template>
  <ol class="rung" :style="{ '--count': rung.parts.length }">
    <template v-for="(node, i) in rung.nodes" :key="node.key">
      <li class="node" :class="{ odd: node.odd, red: leads[0] === node.key, black: leads[1] === node.key }">
        <button :data-node="node.key" :title="node.name" :aria-label="`Node ${node.key}, ${node.name}`" @click="$emit('node', node.key)">{{ node.key }}</button>
        <span class="volts"><span class="muted">{{ node.expected.text }} {{ node.expected.unit }}</span><b v-if="node.read">{{ node.read.text }}<small> {{ node.read.unit }}</small></b></span>
      </li>
      <li v-if="rung.parts[i]" class="part" :class="[rung.parts[i]!.kind, rung.parts[i]!.state, { shut: rung.parts[i]!.closed }]">
        <button class="name" :title="`Volts across: v ${node.key} ${rung.nodes[i + 1]!.key}`" @click="$emit('part', rung.parts[i]!.key, node.key, rung.nodes[i + 1]!.key)"><StateMark :state="rung.parts[i]!.state" :size="14" /><span>{{ rung.parts[i]!.name }}</span></button>
        <svg viewBox="0 0 60 30" preserveAspectRatio="none" aria-hidden="true"><path d="M0 15H60" class="line" /></svg>
        <i v-if="rung.parts[i]!.kind === 'switch'" class="contact" /><i v-else-if="rung.parts[i]!.kind !== 'wire'" class="box" />
        <span class="drop"><b v-if="rung.parts[i]!.read">{{ rung.parts[i]!.read!.text }}<small> {{ rung.parts[i]!.read!.unit }}</small></b></span>
      </li>
    </template>
  </ol>
</template>

<style scoped>
.rung { display: flex; list-style: none; margin: 0; padding: 0; align-items: flex-start }
.node { position: relative; z-index: 1; display: grid; justify-items: center; width: 46px; margin: 62px -10px 0; flex: none }
.node button { width: 44px; height: 44px; border-radius: 50%; border: 2.5px solid var(--ink); background: var(--plate); font-weight: 600; font-size: 15px; padding: 0 }
.red button { border-color: var(--out); box-shadow: 0 0 0 4px color-mix(in srgb, var(--out) 30%, transparent) } .black button { box-shadow: 0 0 0 4px color-mix(in srgb, var(--ink) 35%, transparent) }
.volts { display: grid; justify-items: center; white-space: nowrap; font-size: 14px; margin-top: 4px; min-height: 46px } .volts b { font-size: 21px; line-height: 1.1 } .odd .volts b { color: var(--out) } small { font-size: 13px; font-weight: 500; color: var(--muted) }
.part { position: relative; flex: 1; min-width: 0 }
.name { display: flex; gap: 5px; align-items: flex-end; width: calc(100% + 30px); margin-left: -15px; height: 62px; padding: 0 2px 5px 14px; border: 0; background: none; text-align: left; font-weight: 500; font-size: 14.5px; line-height: 1.1; overflow: hidden } .name svg { flex: none; margin-top: 1px }
svg:not(.name svg) { display: block; width: 100%; height: 44px } .line { stroke: var(--string); stroke-width: 7; vector-effect: non-scaling-stroke; fill: none }
.part.switch .line { stroke-opacity: .85 } .part.switch:not(.shut) .line { stroke-opacity: .3 }
.contact { position: absolute; top: 79px; left: calc(50% - 17px); width: 34px; height: 10px; border-radius: 5px; background: var(--plate); border: 2.5px solid var(--string) } .shut .contact { background: var(--string) }
.part.switch:not(.shut) .contact { height: 4px; top: 70px; border: 0; background: var(--muted); rotate: -24deg }
.part.out .contact { border-color: var(--out); background: var(--out) } .part.out .line { stroke: var(--out); stroke-opacity: .5 }
.box { position: absolute; top: 68px; left: calc(50% - 22px); width: 44px; height: 32px; border: 2.5px solid var(--string); border-radius: 5px; background: var(--plate) } .part.out .box { border-color: var(--out) }
.drop { display: block; text-align: center; white-space: nowrap; font-size: 16px; margin-top: -4px } .out .drop b { color: var(--out) }
@media (max-width: 800px) {
  .rung { flex-direction: column; padding: 0 10px } .node { margin: -6px 0; grid-template-columns: 46px auto; gap: 14px; width: auto; align-items: center; justify-items: start } .volts { grid-auto-flow: column; gap: 10px; min-height: 0; align-items: baseline; margin: 0 }
  .part { width: 100%; min-height: 56px; padding-left: 58px } .name { height: 56px; width: 100%; margin: 0; align-items: center; padding: 0; font-size: 17px } .name svg { margin: 0 }
  svg:not(.name svg) { position: absolute; left: 19px; top: 0; width: 7px; height: 100%; background: var(--string) } .line { display: none } .contact, .part.switch:not(.shut) .contact { left: 9px; top: 24px } .box { left: 1px; top: 12px }
  .drop { position: absolute; right: 6px; top: 17px }
}
</style>
