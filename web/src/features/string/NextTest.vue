<script setup lang="ts">
import { ref } from 'vue'
import type { Schemas } from '@/api/client'
import { percent } from './share'

/** The test offered next: each outcome is a touch that writes it, a number is typed; or it is passed over, with why. */
defineProps<{
  next: Schemas['OfferOut']
  others: Schemas['OfferOut'][]
  writable: boolean
}>()
defineEmits<{ begin: [starter: string]; write: [line: string] }>()
const other = ref(false)
</script>

<template>
  <div class="next">
    <button class="offer" :disabled="!writable" @click="$emit('begin', next.starter)">
      <small>NEXT · about {{ next.minutes }} min</small>
      <b>{{ next.title }}</b>
    </button>
    <p v-if="next.caution" class="caution">
      <b>Mind:</b>
      {{ next.caution }}
    </p>
    <ul>
      <li v-for="(answer, i) in next.answers" :key="answer.shows">
        <button
          v-if="answer.line"
          class="answer"
          :disabled="!writable"
          @click="$emit('write', answer.line)"
        >
          <b>{{ answer.shows }}</b>
          <span class="muted">{{ percent(next.meanings[i]!.share) }}</span>
          → {{ answer.means }}
        </button>
        <p v-else>
          <b>{{ answer.shows }}</b>
          <span class="muted">{{ percent(next.meanings[i]!.share) }}</span>
          → {{ answer.means }}
        </p>
      </li>
    </ul>
    <p v-if="writable" class="passes">
      <button
        v-for="pass in next.passes"
        :key="pass.line"
        class="pass"
        @click="$emit('write', pass.line)"
      >
        {{ pass.label }}
      </button>
    </p>
    <button v-if="others.length" class="ask" :aria-expanded="other" @click="other = !other">
      {{ other ? 'Back to the one offered' : `Other tests (${others.length})` }}
    </button>
    <ul v-if="other" class="others">
      <li v-for="offer in others" :key="offer.title">
        <button class="btn" :disabled="!writable" @click="$emit('begin', offer.starter)">
          {{ offer.title }}
          <span class="muted">{{ offer.minutes }} min</span>
        </button>
      </li>
    </ul>
  </div>
</template>

<style scoped>
.next {
  display: grid;
  gap: 8px;
  padding: 11px 13px;
  border: 2px solid var(--ink);
  border-radius: 7px;
}
.offer {
  display: grid;
  gap: 2px;
  min-height: 44px;
  padding: 0;
  border: 0;
  background: none;
  text-align: left;
}
small {
  font-size: 13px;
  font-weight: 600;
  color: var(--muted);
}
.offer b {
  font-size: 17.5px;
  font-weight: 600;
}
ul {
  display: grid;
  gap: 3px;
  margin: 0;
  padding: 0;
  list-style: none;
  font-size: 15px;
}
.answer {
  width: 100%;
  min-height: 44px;
  padding: 5px 12px;
  border: 1.5px solid var(--ink);
  border-radius: 7px;
  background: none;
  text-align: left;
}
.passes {
  display: flex;
  flex-wrap: wrap;
  gap: 4px 16px;
}
.pass {
  min-height: 44px;
  padding: 0;
  border: 0;
  background: none;
  color: var(--in);
  text-decoration: underline dotted;
}
.caution {
  padding: 6px 10px;
  background: var(--danger-ground);
  border-left: 4px solid var(--out);
  font-size: 15px;
}
.ask {
  justify-self: start;
  min-height: 44px;
  padding: 0;
  border: 0;
  background: none;
  color: var(--in);
  text-decoration: underline dotted;
}
.others .btn {
  width: 100%;
  min-height: 44px;
  padding: 6px 12px;
  line-height: 1.2;
  text-align: left;
}
</style>
