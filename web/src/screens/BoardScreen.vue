<script setup lang="ts">
import { NDrawer, NDrawerContent } from 'naive-ui'
import { computed, ref } from 'vue'
import type { Schemas } from '@/api/client'
import BoardGrid from '@/features/board/BoardGrid.vue'
import NewCall from '@/features/board/NewCall.vue'
import OnNoDay from '@/features/board/OnNoDay.vue'
import PhoneBoard from '@/features/board/PhoneBoard.vue'
import PlanSheet from '@/features/board/PlanSheet.vue'
import { useBoard, type BoardVisit, type Place } from '@/features/board/useBoard'
import MainHead from '@/parts/head/MainHead.vue'
import { plusDays } from '@/ui/days'
import { fullDay } from '@/ui/moments'
import { useTitle } from '@/ui/title'
import { useNarrow } from '@/ui/useNarrow'

/** Days and people; what is on no day at the left, worst first. */
useTitle(() => 'Board')
const DAYS = 7
const first = ref('')
const narrow = useNarrow()
const { board, error, trouble, busy, cell, move, change, cancel, refresh, all } = useBoard(
  first,
  () => DAYS,
)
const chosen = ref<number | null>(null)
const calling = ref<{ unit?: { id: number; name: string }; reason?: string } | null>(null)
const visit = computed(() => all.value.find((one) => one.id === chosen.value))
const find = (id: number) => all.value.find((one) => one.id === id)
const step = (by: number) => (first.value = plusDays(board.value!.days[0]!, by))
const open = (one: BoardVisit) => (chosen.value = one.id)
async function keep(more: Partial<Schemas['PlanChangeIn']>): Promise<void> {
  if (visit.value && (await change(visit.value, more))) chosen.value = null
}
async function end(why: string): Promise<void> {
  if (visit.value && (await cancel(visit.value, why))) chosen.value = null
}
const shift = (one: BoardVisit, to: Place) => void move(one, to)
const plan = (unit: Schemas['LeftUnit'], reason: string) => (calling.value = { unit, reason })
async function planned(): Promise<void> {
  calling.value = null
  await refresh()
}
</script>

<template>
  <div class="page">
    <MainHead />
    <main id="main" tabindex="-1">
      <div class="top">
        <h1>Board</h1>
        <template v-if="board">
          <span class="muted">
            {{ fullDay(board.days[0]!) }} to {{ fullDay(board.days.at(-1)!) }}
          </span>
          <span class="steps" role="group" aria-label="Days">
            <button class="btn" aria-label="A week back" @click="step(-DAYS)">‹</button>
            <button class="btn" :disabled="!first" @click="first = ''">From today</button>
            <button class="btn" aria-label="A week on" @click="step(DAYS)">›</button>
          </span>
          <button class="btn strong" @click="calling = {}">New call</button>
        </template>
      </div>
      <p v-if="error" class="bad" role="alert">{{ error.message }}</p>
      <p v-if="trouble && !visit" class="bad" role="alert">{{ trouble }}</p>
      <p v-if="!board && !error" class="muted">Loading the board …</p>
      <div v-if="board" class="both">
        <OnNoDay :board="board" class="waits" @open="open" @plan="plan" />
        <PhoneBoard v-if="narrow" :board="board" :cell="cell" @open="open" />
        <BoardGrid v-else :board="board" :cell="cell" :find="find" @open="open" @move="shift" />
      </div>
    </main>
    <NDrawer
      :show="!!visit"
      width="min(480px, 100vw)"
      @update:show="(on: boolean) => on || (chosen = null)"
    >
      <NDrawerContent v-if="visit && board" title="The plan" closable>
        <PlanSheet
          :visit="visit"
          :board="board"
          :trouble="trouble"
          :busy="busy"
          @keep="keep"
          @cancel="end"
        />
      </NDrawerContent>
    </NDrawer>
    <NDrawer
      :show="!!calling"
      width="min(480px, 100vw)"
      @update:show="(on: boolean) => on || (calling = null)"
    >
      <NDrawerContent v-if="calling && board" title="New call" closable>
        <NewCall
          :today="board.today"
          :reasons="board.reasons"
          :unit="calling.unit"
          v-bind="calling.reason ? { reason: calling.reason } : {}"
          @planned="planned"
        />
      </NDrawerContent>
    </NDrawer>
  </div>
</template>

<style scoped src="./boardScreen.css"></style>
