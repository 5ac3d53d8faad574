<script setup lang="ts">
import { computed, ref } from 'vue'
import type { Schemas } from '@/api/client'
import ChipRow from '@/ui/ChipRow.vue'
import BoardCard from './BoardCard.vue'
import type { BoardVisit } from './useBoard'

/** On a phone the board is a list: one day, person by person. */
const props = defineProps<{
  board: Schemas['Board']
  cell: (person: number, day: string) => BoardVisit[]
}>()
defineEmits<{ open: [visit: BoardVisit] }>()
const wanted = ref('')
const day = computed(() =>
  props.board.days.includes(wanted.value) ? wanted.value : props.board.days[0]!,
)
const days = computed(() =>
  props.board.days.map((one) => ({
    key: one,
    name: new Date(`${one}T12:00`).toLocaleDateString('en-GB', {
      weekday: 'short',
      day: 'numeric',
    }),
  })),
)
</script>

<template>
  <div class="list">
    <ChipRow label="Day" :options="days" :chosen="day" @choose="(key) => (wanted = key)" />
    <section v-for="person in board.people" :key="person.id" :aria-label="person.name">
      <h2>
        {{ person.name }}
        <span class="muted">{{ person.van }}</span>
      </h2>
      <p v-if="!cell(person.id, day).length" class="muted">Nothing on this day.</p>
      <BoardCard
        v-for="visit in cell(person.id, day)"
        :key="visit.id"
        :visit="visit"
        :helps="visit.technician_id !== person.id"
        @open="$emit('open', visit)"
      />
    </section>
  </div>
</template>

<style scoped>
.list,
section {
  display: grid;
  gap: 8px;
}
h2 {
  margin-top: 8px;
  font-size: 18px;
}
h2 span {
  font-size: 15px;
  font-weight: 400;
}
</style>
