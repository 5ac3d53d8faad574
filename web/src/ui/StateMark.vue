<script setup lang="ts">
/** State by shape first: dot in band, triangle near its edge, tilted square out, dashed ring not shown yet. */
defineProps<{ state: string; size?: number }>()
const WORDS: Record<string, string> = {
  in: 'within limits',
  near: 'near a limit',
  out: 'out of limits',
  none: 'not shown yet',
  noted: 'no limit known',
}
</script>

<template>
  <svg
    :width="size ?? 16"
    :height="size ?? 16"
    viewBox="0 0 16 16"
    class="mark"
    role="img"
    :aria-label="WORDS[state] ?? state"
  >
    <circle v-if="state === 'in'" cx="8" cy="8" r="7" fill="var(--in)" />
    <path v-else-if="state === 'near'" d="M8 1 15.5 15H.5z" fill="var(--near)" />
    <rect
      v-else-if="state === 'out'"
      x="2.6"
      y="2.6"
      width="10.8"
      height="10.8"
      transform="rotate(45 8 8)"
      fill="var(--out)"
    />
    <circle
      v-else-if="state === 'noted'"
      cx="8"
      cy="8"
      r="6"
      fill="none"
      stroke="var(--in)"
      stroke-width="2"
    />
    <circle
      v-else
      cx="8"
      cy="8"
      r="6.4"
      fill="none"
      stroke="var(--muted)"
      stroke-width="1.8"
      stroke-dasharray="2.6 2.4"
    />
  </svg>
</template>

<style scoped>
.mark {
  flex: none;
  display: block;
}
</style>
