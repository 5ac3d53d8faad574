<script setup lang="ts">
import { refDebounced } from '@vueuse/core'
import { keepPreviousData, useQuery } from '@tanstack/vue-query'
import { computed, reactive, ref } from 'vue'
import { planVisit } from '@/api/firm'
import type { ApiError, Schemas } from '@/api/client'
import { find, firmKeys } from '@/api/firm'
import { useAsyncAction } from '@/api/useAsyncAction'
import ChipRow from '@/ui/ChipRow.vue'
import { levelState } from '@/ui/levels'
import StateMark from '@/ui/StateMark.vue'

/** A call that comes in: where, what is wrong, since when, who is there. It waits on no day until it is given one. */
const props = defineProps<{
  today: string
  reasons: Record<string, string>
  unit?: { id: number; name: string } | undefined
  reason?: string
}>()
const emit = defineEmits<{ planned: [] }>()
const TYPING_MS = 120
const where = ref(props.unit?.name ?? '')
const unit = ref(props.unit)
const call = reactive({ complaint: '', since: '', there: '', reason: props.reason ?? 'no_heat' })
const asked = refDebounced(where, TYPING_MS)
const { data: found } = useQuery<Schemas['FoundOut'][], ApiError>({
  queryKey: computed(() => firmKeys.found(asked.value.trim())),
  queryFn: () => find(asked.value.trim()),
  enabled: computed(() => !unit.value && asked.value.trim().length > 0),
  placeholderData: keepPreviousData,
})
const units = computed(() =>
  unit.value ? [] : (found.value ?? []).filter((row) => row.sort === 'unit' && !row.retired),
)
const whys = computed(() => Object.entries(props.reasons).map(([key, name]) => ({ key, name })))
const { trouble, busy, run } = useAsyncAction()
const pick = (row: Schemas['FoundOut']) => {
  unit.value = { id: row.id, name: row.title }
  where.value = row.title
}
const keep = () =>
  run(async () => {
    if (!unit.value) return
    await planVisit(unit.value.id, { ...call, day: props.today, whose: 'nobody' })
    emit('planned')
  })
</script>

<template>
  <form @submit.prevent="keep">
    <label>
      Who or where
      <input
        v-model="where"
        name="call_where"
        autocomplete="off"
        placeholder="tag, street, name …"
        @input="unit = undefined"
      />
    </label>
    <ul v-if="units.length">
      <li v-for="row in units" :key="row.id">
        <button type="button" class="unit" @click="pick(row)">
          <StateMark :state="row.level ? levelState(row.level) : 'none'" :size="12" />
          <span>
            <b>{{ row.title }}</b>
            <span class="muted">{{ row.line }}</span>
          </span>
        </button>
      </li>
    </ul>
    <label>
      What is wrong
      <input v-model="call.complaint" name="call_complaint" maxlength="500" />
    </label>
    <div class="pair">
      <label>
        Since when
        <input v-model="call.since" name="call_since" maxlength="120" />
      </label>
      <label>
        Who is there
        <input v-model="call.there" name="call_there" maxlength="120" />
      </label>
    </div>
    <ChipRow label="Why" :options="whys" :chosen="call.reason" @choose="(k) => (call.reason = k)" />
    <p v-if="trouble" class="bad" role="alert">{{ trouble }}</p>
    <button class="btn strong" :disabled="busy || !unit">Take it in</button>
  </form>
</template>

<style scoped src="./sheet.css"></style>
<style scoped>
ul {
  list-style: none;
  width: 100%;
  margin: 0;
  padding: 0;
  border: 1.5px solid var(--line);
  border-radius: 6px;
}
.unit {
  display: flex;
  gap: 10px;
  align-items: center;
  width: 100%;
  min-height: 44px;
  padding: 6px 12px;
  border: 0;
  background: none;
  color: inherit;
  font: inherit;
  text-align: left;
  cursor: pointer;
}
.unit > span:last-child {
  display: grid;
}
</style>
