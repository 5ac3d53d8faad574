<script setup lang="ts">
import { computed } from 'vue'
import type { Schemas } from '@/api/client'
import StateMark from '@/ui/StateMark.vue'
import { levelState } from '@/ui/levels'
import { shortDay } from '@/ui/moments'

const props = defineProps<{ stop: Schemas['RoundVisit']; dated?: boolean; named?: boolean }>()
const state = computed(() => (props.stop.settled ? levelState(props.stop.level) : 'none'))
const begun = computed(() => props.stop.entries > 0)
const when = computed(() => (props.stop.start ? `at ${props.stop.start.slice(0, 5)}` : ''))
const lastDay = computed(() => props.stop.last_day && shortDay(props.stop.last_day))
</script>

<template>
  <li>
    <RouterLink
      :to="`/visits/${stop.id}/${stop.closed ? 'close' : begun ? 'unit' : 'arrival'}`"
      class="stop"
      :class="{ closed: stop.closed }"
    >
      <b class="turn">{{ dated ? '' : stop.turn }}</b>
      <div class="where">
        <h2>{{ stop.unit_name }}</h2>
        <p v-if="named" class="muted">{{ stop.whose }}</p>
        <p v-if="dated" class="warn">Planned for {{ shortDay(stop.day) }}</p>
        <p>
          {{ stop.site }}
          <b v-if="when">{{ when }}</b>
        </p>
        <p v-if="stop.address">{{ stop.address }}</p>
        <p v-if="stop.vulnerable" class="warn">There: {{ stop.vulnerable }}</p>
        <p class="muted">{{ stop.unit_line }}</p>
      </div>
      <div class="why">
        <b>{{ stop.reason }}</b>
        <p v-if="stop.complaint">“{{ stop.complaint }}”</p>
        <p v-if="stop.since || stop.there" class="muted">
          {{ [stop.since, stop.there].filter(Boolean).join(' · ') }}
        </p>
        <p v-if="stop.task">
          <b>To do:</b>
          {{ stop.task }}
        </p>
        <p v-if="stop.parts.length">
          <b>To fit:</b>
          {{ stop.parts.join(', ') }}
        </p>
        <p class="muted">{{ stop.access }}</p>
        <p v-if="stop.hazards" class="warn">{{ stop.hazards }}</p>
        <p v-if="stop.phone" class="muted">{{ stop.phone }}</p>
      </div>
      <div class="last">
        <p v-if="stop.last_day" class="line">
          <StateMark :state="levelState(stop.last_level ?? 0)" :size="13" />
          <span>
            <b>{{ stop.last_title }}</b>
            <span class="muted">{{ lastDay }}</span>
          </span>
        </p>
        <p v-else class="muted">Never visited before</p>
        <p v-for="line in stop.advice" :key="line">{{ line }}</p>
      </div>
      <p class="now">
        <StateMark :state="state" />
        <span>
          {{
            stop.closed
              ? `Closed: ${stop.title}`
              : begun
                ? `Begun, ${stop.entries} entries: ${stop.title}`
                : 'Not begun'
          }}
        </span>
      </p>
    </RouterLink>
  </li>
</template>

<style scoped>
.stop {
  display: grid;
  grid-template-columns: 44px 1.15fr 1.2fr 1fr;
  gap: 4px 20px;
  padding: 16px 18px;
  background: var(--plate);
  border: 1.5px solid var(--line);
  border-left: 7px solid var(--fire);
  border-radius: 7px;
  color: inherit;
  text-decoration: none;
}
.stop:hover {
  box-shadow: 0 0 0 1.5px var(--ink);
}
.closed {
  border-left-color: var(--air);
  opacity: 0.92;
}
.turn {
  font-size: 34px;
  font-weight: 600;
  line-height: 1;
}
h2 {
  font-size: 20px;
  font-weight: 600;
}
.warn {
  color: var(--near-ink);
  font-weight: 500;
}
.line,
.now {
  display: flex;
  align-items: center;
  gap: 8px;
}
.now {
  grid-column: 2 / -1;
  margin-top: 8px;
  padding-top: 8px;
  border-top: 1px dashed var(--line);
  font-weight: 500;
}
@media (max-width: 700px) {
  .stop {
    grid-template-columns: 32px 1fr;
    padding: 14px;
  }
  .why,
  .last {
    grid-column: 2;
  }
  .turn {
    font-size: 26px;
  }
}
</style>
