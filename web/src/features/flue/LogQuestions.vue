<script setup lang="ts">
import type { Schemas } from '@/api/client'

/** What a person has to say before a column, a number, a unit or the time of a log counts. */
defineProps<{ questions: Schemas['LogQuestion'][]; busy: boolean }>()
const emit = defineEmits<{ answer: [answer: Schemas['AnswerIn']] }>()

function answer(question: Schemas['LogQuestion'], choice: string): void {
  const about = question.about as Schemas['AnswerIn']['about']
  emit('answer', { about, quantity: question.quantity, column: question.column, choice })
}
</script>

<template>
  <section class="questions" aria-label="Asked before it counts">
    <p class="lead">Nothing of these counts before you have said which it is:</p>
    <div v-for="q in questions" :key="q.about + q.quantity + q.column" class="question">
      <p>{{ q.text }}</p>
      <div v-if="q.quantity || q.about !== 'column'" class="choices">
        <button
          v-for="c in q.choices"
          :key="c.key"
          type="button"
          class="btn"
          :disabled="busy"
          @click="answer(q, c.key)"
        >
          {{ c.label }}
        </button>
        <button
          v-if="q.about === 'column'"
          type="button"
          class="btn"
          :disabled="busy"
          @click="answer(q, 'none')"
        >
          none of them
        </button>
      </div>
    </div>
  </section>
</template>

<style scoped>
.questions {
  display: grid;
  gap: 12px;
  padding: 10px 12px;
  border-left: 4px solid var(--near);
  background: var(--plate);
}
.lead {
  font-weight: 600;
}
.question {
  display: grid;
  gap: 6px;
}
.choices {
  display: flex;
  flex-wrap: wrap;
  gap: 8px;
}
</style>
