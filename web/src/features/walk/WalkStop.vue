<script setup lang="ts">
import { computed } from 'vue'
import type { Schemas } from '@/api/client'
import { levelState } from '@/ui/levels'
import StateMark from '@/ui/StateMark.vue'

/** One stop of a walk: what was said there before, the limits, and its answers as buttons. */
const props = defineProps<{
  stop: Schemas['WalkStopOut']
  current: boolean
  answered: boolean
  skipped: boolean
  writable: boolean
}>()
defineEmits<{ answer: [answer: Schemas['WalkAnswerOut']]; more: []; go: [] }>()
type Answer = Schemas['WalkAnswerOut']
const hint = computed(() => [props.stop.limits, props.stop.before].filter(Boolean).join(' · '))
const path = computed(() => props.stop.path || 'line')
/** A number that was read stands on its button, with "…" before that. */
const shown = (answer: Answer) =>
  [answer.stage, answer.label, answer.said || (answer.begins ? `… ${answer.unit}` : '')]
    .filter(Boolean)
    .join(' ')
</script>

<template>
  <section
    class="stop"
    :class="{ current, answered }"
    :style="{ '--path': `var(--${path})` }"
    :aria-current="current ? 'step' : undefined"
    :data-stop="stop.key"
  >
    <h3>
      <button class="title" @click="$emit('go')">{{ stop.name }}</button>
      <small v-if="hint" class="muted">{{ hint }}</small>
      <small v-if="skipped" class="muted">skipped</small>
      <span class="besides">
        <slot />
        <button class="quiet" :disabled="!writable" @click="$emit('more')">more …</button>
      </span>
    </h3>
    <div class="answers">
      <button
        v-for="answer in stop.answers"
        :key="answer.line + answer.stage"
        class="answer"
        :class="{ on: answer.done }"
        :aria-pressed="answer.done"
        :disabled="!writable"
        @click="$emit('answer', answer)"
      >
        <StateMark v-if="answer.level" :state="levelState(answer.level)" :size="13" />
        {{ shown(answer) }}
      </button>
    </div>
  </section>
</template>

<style scoped>
.stop {
  padding: 9px 12px 11px;
  border: 1.5px solid var(--line);
  border-left: 6px solid var(--path);
  border-radius: 8px;
  background: var(--plate);
  scroll-margin: 12px;
}
.current {
  border-color: var(--path);
  box-shadow: 0 0 0 1.5px var(--path);
}
h3 {
  display: flex;
  flex-wrap: wrap;
  align-items: baseline;
  gap: 2px 9px;
  margin: 0 0 6px;
  font-size: 17px;
}
.title {
  min-height: 26px;
  padding: 0;
  border: 0;
  background: none;
  font-weight: 600;
  text-align: left;
}
small {
  font-size: 15px;
  font-weight: 400;
}
.answers {
  display: flex;
  flex-wrap: wrap;
  gap: 7px;
}
.answer {
  display: inline-flex;
  align-items: center;
  justify-content: center;
  gap: 7px;
  flex: 1 1 auto;
  min-width: 72px;
  max-width: 240px;
  min-height: 46px;
  padding: 3px 11px;
  border: 1.5px solid var(--ink);
  border-radius: 7px;
  background: none;
  font-weight: 500;
  line-height: 1.15;
}
.besides {
  display: flex;
  gap: 4px;
  margin-left: auto;
}
.besides :deep(.quiet) {
  min-height: 44px;
  margin: -10px 0;
  padding: 0 6px;
  border: 0;
  background: none;
  color: var(--muted);
  font-size: 15px;
  text-decoration: underline;
  text-decoration-color: var(--line);
  text-underline-offset: 3px;
}
.on {
  border-color: var(--bar);
  background: var(--bar);
  color: var(--bar-ink);
}
</style>
