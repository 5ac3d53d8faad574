<script setup lang="ts">
import { useMutation } from '@tanstack/vue-query'
import { NDrawer, NDrawerContent } from 'naive-ui'
import { computed } from 'vue'
import { takeInHand } from '@/api/calls'
import type { Schemas } from '@/api/client'
import { useBar } from '@/parts/desk/bar'
import { shortDay } from '@/ui/moments'

/** The instruments in hand today, one of each kind: touched once a day, they stand beside each reading from then on. */
const props = defineProps<{ page: Schemas['VisitPage']; narrow: boolean }>()
const emit = defineEmits<{ page: [page: Schemas['VisitPage']] }>()
const bar = useBar()
const held = computed(() => props.page.instruments.filter((one) => one.in_hand))
const before = computed(() => props.page.instruments.filter((one) => one.in_hand_before))
/** One's own, or the van's: one of each kind, for who takes instruments in hand for the first time. */
const own = computed(() => {
  const mine = props.page.instruments.filter((one) => one.own)
  return mine.filter((one) => mine.find((other) => other.kind === one.kind) === one)
})
const kinds = computed(() =>
  [...new Set(props.page.instruments.map((one) => one.kind))].map((kind) => {
    const instruments = props.page.instruments.filter((one) => one.kind === kind)
    return { kind, name: instruments[0]?.kind_name ?? '', instruments }
  }),
)
const { mutate, error, isPending } = useMutation({
  mutationFn: (chosen: Schemas['InstrumentOut'][]) =>
    takeInHand(
      props.page.id,
      chosen.map((one) => one.id),
    ),
  onSuccess: (page) => emit('page', page),
})

/** Of one kind one is in hand; touched again it is put back. */
function touch(one: Schemas['InstrumentOut']): void {
  const others = held.value.filter((other) => other.kind !== one.kind)
  mutate(one.in_hand ? others : [...others, one])
}
const calibration = (one: Schemas['InstrumentOut']) =>
  one.calibrated_until === null
    ? 'calibration not known'
    : `${one.in_date ? 'calibrated until' : 'calibration ended'} ${shortDay(one.calibrated_until)}`
</script>

<template>
  <NDrawer
    v-model:show="bar.choosesInstruments"
    :width="440"
    height="80%"
    :placement="narrow ? 'bottom' : 'right'"
  >
    <NDrawerContent title="Instruments in hand today" closable>
      <button
        v-if="!held.length && before.length"
        class="btn same"
        :disabled="isPending"
        @click="mutate(before)"
      >
        The same as last time: {{ before.map((one) => one.name).join(', ') }}
      </button>
      <button
        v-else-if="!held.length && own.length"
        class="btn same"
        :disabled="isPending"
        @click="mutate(own)"
      >
        Yours: {{ own.map((one) => one.name).join(', ') }}
      </button>
      <section v-for="kind in kinds" :key="kind.kind" role="group" :aria-label="kind.name">
        <h3>{{ kind.name }}</h3>
        <button
          v-for="one in kind.instruments"
          :key="one.id"
          class="one"
          :class="{ on: one.in_hand }"
          :aria-pressed="one.in_hand"
          :disabled="isPending || !page.writable"
          @click="touch(one)"
        >
          <b>{{ one.in_hand ? '✓ ' : '' }}{{ one.name }}</b>
          <small :class="{ over: !one.in_date }">{{ calibration(one) }}</small>
        </button>
      </section>
      <p v-if="error" class="trouble" role="alert">{{ error.message }}</p>
      <p class="muted">
        Each reading is noted with the one that reads it. One out of calibration is said at the
        reading.
      </p>
    </NDrawerContent>
  </NDrawer>
</template>

<style scoped>
.same {
  width: 100%;
  min-height: 48px;
  white-space: normal;
}
h3 {
  margin: 14px 0 6px;
  font-size: 16px;
  font-weight: 600;
}
.one {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  justify-content: space-between;
  gap: 2px 12px;
  width: 100%;
  min-height: 48px;
  margin-bottom: 6px;
  padding: 4px 12px;
  border: 1.5px solid var(--line);
  border-radius: 7px;
  background: none;
  text-align: left;
}
.one.on {
  border-color: var(--ink);
  border-width: 2.5px;
}
b {
  font-weight: 500;
}
small {
  font-size: 14px;
  color: var(--muted);
}
.over,
.trouble {
  color: var(--out);
}
</style>
