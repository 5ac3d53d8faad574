<script setup lang="ts">
import { useQuery, useQueryClient } from '@tanstack/vue-query'
import { computed, ref, watch } from 'vue'
import { getHouse, keepHouse, keys } from '@/api/calls'
import type { ApiError, Schemas } from '@/api/client'
import { useAsyncAction } from '@/api/useAsyncAction'
import { changesOf, draftOf, presetDraft, type Draft } from './draft'
import DryRunPanel from './DryRunPanel.vue'
import RuleQuestions from './RuleQuestions.vue'
import { useDryRun } from './useDryRun'
import WrittenFormats from './WrittenFormats.vue'

const cache = useQueryClient()
const { data: house, error } = useQuery<Schemas['HouseRulesOut'], ApiError>({
  queryKey: keys.house,
  queryFn: getHouse,
})
const draft = ref<Draft>({ name: '', answers: {}, limits: {} })
const kept = ref(false)
const why = ref('')
const { trouble: refused, busy, run } = useAsyncAction()
const changes = computed(() => (house.value ? changesOf(house.value, draft.value) : {}))
const count = computed(() => Object.keys(changes.value).filter((key) => key !== 'name').length)
const rules = computed(() => ({
  name: draft.value.name,
  ...draft.value.answers,
  ...draft.value.limits,
}))
const { found, trouble } = useDryRun(
  () => rules.value,
  () => count.value > 0,
)
watch(
  house,
  (now) => {
    if (now) draft.value = draftOf(now)
  },
  { immediate: true },
)
watch(count, (now) => {
  if (now) kept.value = false
})
const title = computed(() => {
  if (!count.value) return 'As it is today'
  return `${count.value} ${count.value === 1 ? 'answer differs' : 'answers differ'} from today`
})

const keep = () =>
  run(async () => {
    cache.setQueryData(keys.house, await keepHouse(rules.value, why.value))
    why.value = ''
    kept.value = true
  })
</script>

<template>
  <p v-if="error" class="none" role="alert">{{ error.message }}</p>
  <p v-else-if="!house" class="none muted">Loading the house rules …</p>
  <div v-else class="house">
    <main id="main" tabindex="-1" class="rules">
      <div class="top">
        <label>
          Name
          <input v-model="draft.name" maxlength="60" :disabled="!house.writable" />
        </label>
        <span class="muted">Begin from</span>
        <button
          v-for="preset in house.presets"
          :key="preset.name"
          class="btn"
          @click="draft = presetDraft(draft, preset)"
        >
          {{ preset.name }}
        </button>
      </div>
      <p v-if="!house.writable" class="muted">
        Only a supervisor sets the house rules; anyone may try what they would change.
      </p>
      <RuleQuestions v-model="draft" :house="house" :found="found" />
      <WrittenFormats />
    </main>
    <aside aria-label="What would change" tabindex="0">
      <h2>{{ title }}</h2>
      <p v-if="trouble || refused" class="trouble" role="alert">{{ refused || trouble }}</p>
      <p v-if="kept" role="status">
        Kept. Visits that begin from now on are judged by them; those that have begun keep theirs.
      </p>
      <label v-if="house.writable && count" class="why">
        Why they are changed
        <input v-model="why" maxlength="300" placeholder="kept with this version" />
      </label>
      <button
        v-if="house.writable"
        class="btn strong"
        :disabled="busy || !Object.keys(changes).length"
        @click="keep"
      >
        Keep these rules
      </button>
      <button v-if="count" class="btn" @click="draft = draftOf(house)">Back to today’s</button>
      <DryRunPanel v-if="found" :found="found" />
      <p v-else class="muted">
        Change an answer: it is run at once on the last visits, and nothing is kept until you say
        so.
      </p>
    </aside>
  </div>
</template>

<style scoped src="./houseRules.css"></style>
