<script setup lang="ts">
import { computed } from 'vue'
import type { Schemas } from '@/api/client'

/** The step offered next: its outcomes are answered at a touch, a number is typed; never imposed. */
const props = defineProps<{ step: Schemas['NextOut']; writable: boolean }>()
const emit = defineEmits<{ next: [starter: string, station: string]; write: [line: string] }>()
const answers = computed(() => props.step.answers.filter((answer) => answer.line))
const begin = () => emit('next', props.step.starter, props.step.station)
</script>

<template>
  <div class="next">
    <button class="offer" @click="begin">
      <small>NEXT · about {{ step.minutes }} min</small>
      <b>{{ step.title }}</b>
      <span v-if="!answers.length">{{ step.why }}</span>
    </button>
    <ul v-if="answers.length">
      <li v-for="answer in answers" :key="answer.line">
        <button class="answer" :disabled="!writable" @click="emit('write', answer.line)">
          {{ answer.shows }}
          <small>{{ answer.means }}</small>
        </button>
      </li>
    </ul>
    <button class="answer type" :disabled="!writable" @click="begin">
      {{ answers.length ? 'Type what it shows …' : 'Type it …' }}
    </button>
    <p v-if="step.passes.length" class="passes">
      <button
        v-for="pass in step.passes"
        :key="pass.line"
        class="pass"
        :disabled="!writable"
        @click="emit('write', pass.line)"
      >
        {{ pass.label }}
      </button>
    </p>
  </div>
</template>

<style scoped>
.next {
  margin-top: 12px;
  padding: 11px 13px;
  background: var(--plate);
  border: 2px solid var(--ink);
  border-radius: 7px;
}
.offer {
  display: grid;
  gap: 2px;
  width: 100%;
  padding: 0;
  border: 0;
  background: none;
  text-align: left;
}
.offer small {
  font-size: 13px;
  color: var(--muted);
  font-weight: 600;
  letter-spacing: 0.02em;
}
.offer b {
  font-size: 18px;
  font-weight: 600;
}
.offer span {
  color: var(--muted);
}
ul {
  display: grid;
  gap: 6px;
  margin: 8px 0 0;
  padding: 0;
  list-style: none;
}
.answer {
  display: grid;
  align-content: center;
  width: 100%;
  min-height: 44px;
  padding: 4px 12px;
  border: 1.5px solid var(--ink);
  border-radius: 7px;
  background: none;
  text-align: left;
  font-weight: 500;
}
.type {
  margin-top: 6px;
}
.passes {
  display: grid;
  grid-template-columns: repeat(3, 1fr);
  gap: 6px;
  margin: 6px 0 0;
}
.pass {
  min-height: 44px;
  padding: 4px 6px;
  border: 1.5px solid var(--line);
  border-radius: 7px;
  background: none;
  color: var(--muted);
  line-height: 1.15;
}
.answer small {
  color: var(--muted);
  font-size: 14px;
}
</style>
