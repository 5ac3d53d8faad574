<script setup lang="ts">
import { computed, ref } from 'vue'
import type { Schemas } from '@/api/client'
import ChipRow from '@/ui/ChipRow.vue'
import { withProof, type KindDocument } from './kindForm'

/** What a visit to this kind must show, by the reason for the visit. */
const props = defineProps<{
  document: KindDocument
  shipped: boolean
  choices: Schemas['Choices'] | undefined
}>()
const emit = defineEmits<{ change: [document: KindDocument] }>()
const reason = ref('every')
const shown = computed(() => new Set(props.document.must_show[reason.value] ?? []))
const reasons = computed(() =>
  (props.choices?.reasons ?? []).map(({ key, name }) => ({
    key,
    name: `${name} ${props.document.must_show[key]?.length ?? 0}`,
  })),
)
</script>

<template>
  <section>
    <h2>What a visit must show</h2>
    <ChipRow label="Reason" :options="reasons" :chosen="reason" @choose="(key) => (reason = key)" />
    <p class="proofs">
      <button
        v-for="proof in choices?.proofs"
        :key="proof.key"
        class="proof"
        :class="{ asked: shown.has(proof.key) }"
        :aria-pressed="shown.has(proof.key)"
        :disabled="shipped"
        @click="emit('change', withProof(document, reason, proof.key))"
      >
        {{ shown.has(proof.key) ? '●' : '○' }} {{ proof.name }}
      </button>
    </p>
  </section>
</template>

<style scoped>
section {
  display: grid;
  gap: 8px;
}
h2 {
  font-size: 17px;
}
.proofs {
  display: flex;
  flex-wrap: wrap;
  gap: 6px;
  align-items: center;
}
.proof {
  min-height: 44px;
  padding: 0 11px;
  border: 1.5px solid var(--line);
  border-radius: 6px;
  background: var(--plate);
  font-size: 15px;
}
.asked {
  border-color: var(--in);
  color: var(--in);
  font-weight: 600;
}
</style>
