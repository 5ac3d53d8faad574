<script setup lang="ts">
import { keepPreviousData, useQuery } from '@tanstack/vue-query'
import { onClickOutside, onKeyStroke, refDebounced } from '@vueuse/core'
import { computed, nextTick, ref, useId, useTemplateRef, watch } from 'vue'
import { useRouter } from 'vue-router'
import type { ApiError, Schemas } from '@/api/client'
import { find, firmKeys } from '@/api/firm'
import { levelState } from '@/ui/levels'
import StateMark from '@/ui/StateMark.vue'
import { placeOf, SORT_NAMES } from './places'

/** `folded`: the field is shown when it is asked for, as always on a phone: where the head has other things to say. */
defineProps<{ folded?: boolean }>()
/** One field that finds anything: a tag, a street, a serial number, a contact, a model, words of a visit. */
const TYPING_MS = 120
const router = useRouter()
const listId = useId()
const box = useTemplateRef<HTMLElement>('box')
const field = useTemplateRef<HTMLInputElement>('field')
const asked = ref('')
const open = ref(false)
const wide = ref(false) // on a phone the field lies over the head once it was asked for
const at = ref(0)
const question = refDebounced(
  computed(() => asked.value.trim()),
  TYPING_MS,
)
const { data: found, error } = useQuery<Schemas['FoundOut'][], ApiError>({
  queryKey: computed(() => firmKeys.found(question.value)),
  queryFn: () => find(question.value),
  enabled: computed(() => question.value.length > 0),
  placeholderData: keepPreviousData,
})
const rows = computed(() => (question.value ? (found.value ?? []) : []))
watch(rows, () => (at.value = 0))

function close(): void {
  open.value = wide.value = false
}
function choose(row: Schemas['FoundOut'] | undefined): void {
  if (!row) return
  close()
  asked.value = ''
  void router.push(placeOf(row))
}
function move(by: number): void {
  open.value = true
  at.value = Math.min(Math.max(at.value + by, 0), rows.value.length - 1)
}
async function show(): Promise<void> {
  wide.value = open.value = true
  await nextTick()
  field.value?.focus()
}
onClickOutside(box, close)
onKeyStroke('k', (event) => {
  if (!event.ctrlKey && !event.metaKey) return
  event.preventDefault()
  void show()
})
</script>

<template>
  <div ref="box" class="find" :class="{ wide, folded }" role="search">
    <button type="button" class="show" @click="show">Find</button>
    <input
      ref="field"
      v-model="asked"
      name="find"
      type="search"
      role="combobox"
      aria-label="Find a unit, street, serial number, contact, or words of a visit"
      aria-autocomplete="list"
      :aria-expanded="open && rows.length > 0"
      :aria-controls="listId"
      :aria-activedescendant="open && rows[at] ? `${listId}-${at}` : undefined"
      placeholder="unit, street, serial, words of a visit …"
      autocomplete="off"
      maxlength="120"
      @input="open = true"
      @focus="open = true"
      @keydown.down.prevent="move(1)"
      @keydown.up.prevent="move(-1)"
      @keydown.enter.prevent="choose(rows[at])"
      @keydown.esc="close"
    />
    <div v-show="open && question" class="found">
      <p v-if="error" role="alert">{{ error.message }}</p>
      <p v-else-if="!rows.length" class="muted">
        {{ found ? 'Nothing has all of these words.' : 'Looking …' }}
      </p>
      <ul :id="listId" role="listbox" aria-label="Found">
        <li
          v-for="(row, index) in rows"
          :id="`${listId}-${index}`"
          :key="`${row.sort}${row.id}`"
          role="option"
          :aria-selected="index === at"
          :class="{ at: index === at }"
          @mousemove="at = index"
          @click="choose(row)"
        >
          <StateMark
            v-if="row.sort === 'unit'"
            :state="row.level ? levelState(row.level) : 'none'"
            :size="13"
          />
          <span class="sort">{{ SORT_NAMES[row.sort] }}</span>
          <span class="words">
            <b>{{ row.title }}{{ row.retired ? ' (retired)' : '' }}</b>
            <span class="muted">{{ row.line }}</span>
          </span>
        </li>
      </ul>
    </div>
  </div>
</template>

<style scoped src="./find.css"></style>
