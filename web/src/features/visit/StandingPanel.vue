<script setup lang="ts">
import { computed, ref } from 'vue'
import type { Schemas } from '@/api/client'
import { notReached } from '@/outbox/notReached'
import { levelState } from '@/ui/levels'
import StateMark from '@/ui/StateMark.vue'
import NextStep from './NextStep.vue'
import StandingReason from './StandingReason.vue'

const props = defineProps<{
  standing: Schemas['StandingOut']
  waiting: number
  stale: boolean
  folded?: boolean
  writable?: boolean
}>()
const emit = defineEmits<{
  station: [key: string]
  next: [starter: string, station: string]
  write: [line: string]
}>()
const judged = computed(() => !props.waiting && !props.stale)
const state = computed(() =>
  !judged.value || !props.standing.settled ? 'none' : levelState(props.standing.level),
)
const title = computed(() => (judged.value ? props.standing.title : 'Not judged'))
const FIRST = 7
const all = ref(false)
const missing = computed(() =>
  all.value ? props.standing.missing : props.standing.missing.slice(0, FIRST),
)
</script>

<template>
  <section
    class="standing"
    :class="[`l${judged ? standing.level : 0}`, { settled: standing.settled }]"
    aria-live="polite"
  >
    <h2>
      <StateMark :state="state" :size="22" />
      {{ title }}
    </h2>
    <template v-if="!folded">
      <p v-if="!judged" class="note">
        {{ waiting ? `${notReached(waiting)}.` : 'The server cannot be reached.' }} What follows was
        true before; nothing is judged without it.
      </p>
      <ul>
        <StandingReason
          v-for="reason in standing.reasons"
          :key="reason.code + reason.text"
          :reason="reason"
          @station="(key) => emit('station', key)"
        />
        <li v-if="standing.missing.length" class="missing">
          <StateMark state="none" :size="15" />
          <div>
            Still to show:
            <template v-for="(item, i) in missing" :key="item.text">
              <button
                class="open"
                :title="item.how"
                @click="emit('next', item.starter, item.station)"
              >
                {{ item.text }}
              </button>
              {{ i < missing.length - 1 ? '·' : '' }}
            </template>
            <button v-if="standing.missing.length > FIRST" class="ask more" @click="all = !all">
              {{ all ? 'fewer' : `and ${standing.missing.length - FIRST} more` }}
            </button>
          </div>
        </li>
        <li v-for="line in standing.not_judged" :key="line" class="muted">
          <StateMark state="noted" :size="13" />
          {{ line }}
        </li>
      </ul>
      <NextStep
        v-if="standing.next_step && judged"
        :step="standing.next_step"
        :writable="writable"
        @next="(starter, station) => emit('next', starter, station)"
        @write="(line) => emit('write', line)"
      />
    </template>
  </section>
</template>

<style scoped>
.standing {
  padding: 14px 16px 12px;
  border-bottom: 1.5px solid var(--line);
}
.l4.settled {
  background: var(--danger-ground);
}
h2 {
  display: flex;
  align-items: center;
  gap: 12px;
  font-size: 22px;
  font-weight: 600;
  line-height: 1.15;
}
ul {
  list-style: none;
  padding: 0;
  margin: 8px 0 0;
  display: grid;
  gap: 6px;
}
li {
  display: flex;
  gap: 10px;
  align-items: flex-start;
}
li > svg {
  margin-top: 4px;
}
.open,
.ask {
  border: 0;
  background: none;
  padding: 0;
  text-align: left;
}
.ask {
  color: var(--in);
  font-size: 15px;
  text-decoration: underline dotted;
}
.missing {
  color: var(--muted);
}
.open {
  color: var(--ink);
  text-decoration: underline;
  text-decoration-color: var(--line);
  text-underline-offset: 3px;
}
.note {
  margin-top: 8px;
  font-weight: 500;
}
@media (max-width: 800px), (pointer: coarse) {
  .open,
  .ask {
    min-height: 44px;
    padding-block: 4px;
  }
}
.more {
  margin-left: 6px;
}
</style>
