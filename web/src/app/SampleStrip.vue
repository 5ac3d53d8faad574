<script setup lang="ts">
/** Over every page of the sample world, so that nobody takes it for a firm's. It takes its height from the page (base.css). */
</script>

<template>
  <section class="sample" aria-label="Sample world">Sample world: all of it is made up</section>
</template>

<style>
/* Every screen that fills the window leaves the strip its height. */
:root:has(.sample) {
  --strip: 22px;
}
.sample {
  position: sticky;
  top: 0;
  z-index: 5;
  height: var(--strip);
  background: color-mix(in srgb, var(--near), var(--ink) 30%);
  color: var(--paper);
  font-size: 14px;
  font-weight: 600;
  line-height: var(--strip);
  text-align: center;
}
</style>
