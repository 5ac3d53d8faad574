<script setup lang="ts">
import { useNow } from '@vueuse/core'
import type { Schemas } from '@/api/client'
import StateMark from '@/ui/StateMark.vue'
import { clockAt } from '@/ui/moments'
import { running } from './stopwatch'

/** Jumpers, lifted leads and what else is left abnormal, each with how long it has been so. */
defineProps<{ page: Schemas['VisitPage'] }>()
defineEmits<{ begin: [starter: string] }>()
const VERBS = ['jump', 'hold', 'lift', 'tee', 'tap']
const now = useNow({ interval: 10_000 })
</script>

<template>
  <h3>
    {{
      page.jumpers.length || page.close.put_backs.length ? 'Left abnormal' : 'Nothing left abnormal'
    }}
  </h3>
  <p v-for="jumper in page.jumpers" :key="jumper.how + jumper.device" class="left">
    <StateMark state="out" :size="14" />
    <span>
      {{ jumper.text }} Since {{ clockAt(jumper.since, page.zone) }} ·
      {{ running(jumper.since, now.getTime()) }}
    </span>
    <button class="btn small" :disabled="!page.writable" @click="$emit('begin', jumper.put_back)">
      Made good
    </button>
  </p>
  <p v-for="line in page.close.put_backs" :key="line" class="left">
    <StateMark state="near" :size="14" />
    {{ line }}
  </p>
  <p class="muted">
    Jumpers, held switches, lifted leads, tees, open taps: all on the tape with their time. The
    visit cannot close while one is left.
  </p>
  <p v-if="page.writable" class="verbs">
    <button v-for="verb in VERBS" :key="verb" class="btn small" @click="$emit('begin', `${verb} `)">
      {{ verb }} …
    </button>
  </p>
</template>

<style scoped>
h3 {
  margin-top: 6px;
  padding-top: 12px;
  border-top: 1.5px solid var(--line);
  font-size: 17px;
}
.left {
  display: flex;
  gap: 8px;
  align-items: center;
  font-weight: 500;
}
.left > span {
  flex: 1;
  line-height: 1.2;
}
.left svg {
  flex: none;
}
.verbs {
  display: flex;
  gap: 6px;
  flex-wrap: wrap;
}
.small {
  padding: 0 12px;
}
</style>
