<script setup lang="ts">
/** A piece of wire in its colour, with its stripe; edged, so that white shows on paper and black in the cellar. */
defineProps<{ wires: readonly string[] }>()
</script>

<template>
  <span
    v-if="wires.length"
    class="wire"
    :data-wires="wires.join(' ')"
    :style="{
      '--own': `var(--wire-${wires[0]})`,
      '--stripe': `var(--wire-${wires[1] ?? wires[0]})`,
    }"
  />
</template>

<style scoped>
.wire {
  display: inline-block;
  width: 30px;
  height: 9px;
  border: 1.5px solid var(--ink);
  border-radius: 4px;
  background: linear-gradient(var(--own) 35%, var(--stripe) 35% 65%, var(--own) 65%);
}
</style>
