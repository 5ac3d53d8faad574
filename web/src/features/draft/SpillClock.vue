<script setup lang="ts">
import { useIntervalFn } from '@vueuse/core'
import { computed, ref } from 'vue'
import type { Schemas } from '@/api/client'
import StateMark from '@/ui/StateMark.vue'

defineProps<{ vent: Schemas['VentOut']; writable: boolean }>()
const emit = defineEmits<{ begin: [starter: string] }>()
const started = ref<number | null>(null)
const now = ref(0)
useIntervalFn(() => {
  if (started.value !== null) now.value = performance.now()
}, 250)
const seconds = computed(() =>
  started.value === null ? 0 : Math.max(0, Math.floor((now.value - started.value) / 1000)),
)
const shown = computed(
  () => `${Math.floor(seconds.value / 60)}:${String(seconds.value % 60).padStart(2, '0')}`,
)
function press(): void {
  if (started.value === null) {
    started.value = performance.now()
    now.value = started.value
    return
  }
  emit('begin', `spill ${seconds.value} s`)
  started.value = null
}
</script>

<template>
  <section class="spill">
    <h3>
      Spillage
      <span class="muted">doors shut, exhausts on, unit cold; smoke or mirror at the hood</span>
    </h3>
    <p v-if="vent.spillage" class="last">
      <StateMark :state="vent.spillage_state" />
      Stopped after {{ vent.spillage.text }} {{ vent.spillage.unit }}
    </p>
    <button class="key" :class="{ runs: started !== null }" @click="press">
      <b>{{ shown }}</b>
      <span>
        {{ started === null ? 'main burner lights: start' : 'it draws: no more spillage' }}
      </span>
    </button>
    <p v-if="vent.spillage_rule" class="muted">{{ vent.spillage_rule }}</p>
    <button class="btn danger" :disabled="!writable" @click="emit('begin', 'found spillage')">
      It does not stop
    </button>
  </section>
</template>

<style scoped>
.spill {
  display: grid;
  gap: 8px;
  align-content: start;
}
h3 {
  font-size: 18px;
}
h3 span {
  font-weight: 400;
  font-size: 15px;
  margin-left: 6px;
}
.last {
  display: flex;
  gap: 8px;
  align-items: center;
  font-weight: 500;
}
.key {
  min-height: 96px;
  border: 2.5px solid var(--ink);
  border-radius: 12px;
  background: var(--plate);
  display: grid;
  place-content: center;
  text-align: center;
}
.key b {
  font-size: 38px;
  line-height: 1.1;
}
.runs {
  border-color: var(--near);
}
.danger {
  border-color: var(--out);
  color: var(--out);
  justify-self: start;
}
</style>
