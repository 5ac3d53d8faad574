<script setup lang="ts">
import type { Schemas } from '@/api/client'

defineProps<{ vent: Schemas['VentOut']; writable: boolean }>()
const emit = defineEmits<{ begin: [starter: string] }>()
const said = (shown: Schemas['Shown'] | null, none: string) =>
  shown ? `${shown.text} ${shown.unit}` : none
</script>

<template>
  <div class="sketch">
    <svg viewBox="0 0 220 240" role="img" aria-label="The vent from the unit to the outdoors">
      <path d="M20 236V120L110 62l90 58v116z" fill="none" stroke="var(--line)" stroke-width="2.5" />
      <rect
        x="74"
        y="176"
        width="60"
        height="60"
        rx="4"
        fill="var(--plate)"
        stroke="var(--ink)"
        stroke-width="2"
      />
      <text x="104" y="211" text-anchor="middle">unit</text>
      <path d="M104 176V22" stroke="var(--fire)" stroke-width="13" />
      <path d="M104 176V22" stroke="var(--plate)" stroke-width="8" />
      <path d="M90 20h28" stroke="var(--ink)" stroke-width="4" />
      <path
        d="M104 160v-22m0 0-5 8m5-8 5 8M104 96V74m0 0-5 8m5-8 5 8"
        stroke="var(--fire)"
        stroke-width="2"
        fill="none"
      />
      <path d="M150 22v154m-5-154h10m-10 154h10" stroke="var(--muted)" stroke-width="1.5" />
    </svg>
    <dl>
      <div>
        <dt>Outdoors</dt>
        <dd>
          <button :disabled="!writable" @click="emit('begin', 'outdoor ')">
            {{ said(vent.outdoor, 'write it') }}
          </button>
        </dd>
      </div>
      <div>
        <dt>Height</dt>
        <dd>
          <button :disabled="!writable" @click="emit('begin', 'vent height ')">
            {{ said(vent.height, 'write it') }}
          </button>
        </dd>
      </div>
      <div>
        <dt>Flue at the collar</dt>
        <dd>{{ said(vent.flue, 'with the flue sample') }}</dd>
      </div>
      <div>
        <dt>Draft in the vent</dt>
        <dd>
          <button :disabled="!writable" @click="emit('begin', 'vent draft ')">
            {{ said(vent.draft, 'write it') }}
          </button>
        </dd>
      </div>
      <div>
        <dt>Theoretical draft</dt>
        <dd>
          <b>{{ said(vent.theoretical, '–') }}</b>
        </dd>
      </div>
    </dl>
  </div>
</template>

<style scoped>
.sketch {
  display: grid;
  grid-template-columns: minmax(140px, 190px) 1fr;
  gap: 18px;
  align-items: center;
}
text {
  font: 500 16px var(--font);
  fill: var(--ink);
}
dl {
  margin: 0;
  display: grid;
  gap: 2px;
}
dl > div {
  display: flex;
  justify-content: space-between;
  align-items: center;
  gap: 10px;
  min-height: 44px;
  border-bottom: 1px solid var(--line);
}
dt {
  color: var(--muted);
}
dd {
  margin: 0;
  font-weight: 600;
}
dd button {
  min-height: 44px;
  border: 0;
  background: none;
  color: var(--in);
  text-decoration: underline dotted;
  font-weight: 600;
}
b {
  font-size: 20px;
}
</style>
