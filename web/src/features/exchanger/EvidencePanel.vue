<script setup lang="ts">
import type { Schemas } from '@/api/client'
import StateMark from '@/ui/StateMark.vue'

defineProps<{ evidence: Schemas['EvidenceOut']; writable: boolean }>()
defineEmits<{ begin: [starter: string] }>()
</script>

<template>
  <section>
    <h2>
      <StateMark :state="evidence.state" :size="20" />
      {{ evidence.says }}
    </h2>
    <p class="muted">Before any sign: {{ evidence.prior }}.</p>
    <ul v-if="evidence.signs.length">
      <li v-for="sign in evidence.signs" :key="sign.text" :class="{ against: sign.against }">
        <span>{{ sign.text }}</span>
        <b>{{ sign.weight }}</b>
      </li>
    </ul>
    <p v-else class="muted">No sign is on the tape, for or against.</p>
    <template v-if="evidence.looks.length">
      <h3>What would settle it</h3>
      <button
        v-for="look in evidence.looks"
        :key="look.text"
        class="look"
        :disabled="!writable"
        @click="$emit('begin', look.starter)"
      >
        <b>{{ look.text }}</b>
        <span class="muted">{{ look.minutes }} min</span>
        <span>
          shows it: {{ look.if_found }}
          <br />
          shows nothing: {{ look.if_not }}
        </span>
      </button>
    </template>
    <p class="muted small">{{ evidence.source }}</p>
  </section>
</template>

<style scoped>
section {
  background: var(--plate);
  border: 1.5px solid var(--line);
  border-radius: 8px;
  padding: 12px 16px;
  display: grid;
  gap: 8px;
}
h2 {
  display: flex;
  gap: 9px;
  align-items: center;
  font-size: 19px;
}
h3 {
  font-size: 16px;
}
ul {
  list-style: none;
  margin: 0;
  padding: 0;
}
li {
  display: flex;
  justify-content: space-between;
  gap: 12px;
  min-height: 34px;
  align-items: center;
  border-bottom: 1px solid var(--line);
}
li b {
  font-size: 19px;
  white-space: nowrap;
  color: var(--out);
}
.against b {
  color: var(--in);
}
.look {
  display: grid;
  grid-template-columns: 1fr auto;
  gap: 2px 12px;
  min-height: 44px;
  padding: 8px 12px;
  border: 1.5px solid var(--line);
  border-radius: 6px;
  background: none;
  text-align: left;
}
.look span:last-child {
  grid-column: 1 / -1;
  font-size: 15px;
}
.small {
  font-size: 14px;
}
</style>
