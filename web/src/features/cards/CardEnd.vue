<script setup lang="ts">
import { useQuery } from '@tanstack/vue-query'
import { refDebounced } from '@vueuse/core'
import { computed, ref } from 'vue'
import type { ApiError, Schemas } from '@/api/client'
import { firmKeys, getCards, mergeCard, retireCard, undoMerge } from '@/api/firm'
import { useAsyncAction } from '@/api/useAsyncAction'
import Card from '@/ui/Card.vue'
import { dayAt } from '@/ui/moments'

/** A card that is no longer of use: retired, or merged into the one that it is the same as; and both undone. */
const props = defineProps<{
  sort: Schemas['SortOut']
  card: Schemas['CardOut']
  zone: string
}>()
const emit = defineEmits<{ changed: [card: Schemas['CardOut']] }>()
const TYPING_MS = 150
const { trouble, busy, run } = useAsyncAction()
const reason = ref('')
const typed = ref('')
const asked = refDebounced(typed, TYPING_MS)
const { data: found } = useQuery<Schemas['CardList'], ApiError>({
  queryKey: computed(() => firmKeys.list(props.sort.key, { q: asked.value.trim() })),
  queryFn: () => getCards(props.sort.key, { q: asked.value.trim() }),
  enabled: computed(() => asked.value.trim().length > 1),
})
const others = computed(() =>
  typed.value.trim().length > 1
    ? (found.value?.rows.filter((row) => row.id !== props.card.id).slice(0, 6) ?? [])
    : [],
)
const keep = (work: Promise<Schemas['CardOut']>) =>
  run(async () => {
    emit('changed', await work)
    reason.value = typed.value = ''
  })
const retire = (retired: boolean) =>
  keep(retireCard(props.sort.key, props.card.id, { retired, reason: reason.value }))
const merge = (into: number) =>
  run(async () => {
    await mergeCard(props.sort.key, props.card.id, { into, why: reason.value })
    typed.value = ''
    emit('changed', {
      ...props.card,
      retired: true,
      merged_into: others.value.find((row) => row.id === into) ?? null,
    })
  })
</script>

<template>
  <Card v-if="sort.may_retire || sort.may_merge" title="No longer of use">
    <p v-for="one in card.merges" :key="one.id" class="merge">
      <span>{{ one.title }} merged, {{ one.by }}, {{ dayAt(one.at, zone) }} {{ one.why }}</span>
      <button class="btn" :disabled="busy" @click="keep(undoMerge(one.id))">
        Take apart again
      </button>
    </p>
    <template v-if="!card.merged_into">
      <label v-if="!card.retired">
        Why
        <input v-model="reason" name="end_reason" maxlength="300" />
      </label>
      <div class="ways">
        <button v-if="card.retired" class="btn" :disabled="busy" @click="retire(false)">
          Take it into use again
        </button>
        <button v-else-if="sort.may_retire" class="btn" :disabled="busy" @click="retire(true)">
          Retire this {{ sort.name.toLowerCase() }}
        </button>
        <label v-if="sort.may_merge && !card.retired">
          It is the same as
          <input
            v-model="typed"
            name="merge_into"
            autocomplete="off"
            placeholder="some letters …"
          />
        </label>
      </div>
      <ul v-if="others.length">
        <li v-for="row in others" :key="row.id">
          <button class="btn" :disabled="busy" @click="merge(row.id)">
            Merge into {{ row.title }}
            <span class="muted">{{ row.line }}</span>
          </button>
        </li>
      </ul>
    </template>
    <p v-if="trouble" class="bad" role="alert">{{ trouble }}</p>
  </Card>
</template>

<style scoped>
.merge,
.ways {
  display: flex;
  flex-wrap: wrap;
  gap: 8px 18px;
  align-items: end;
}
label {
  display: grid;
  gap: 3px;
  max-width: 420px;
}
input {
  min-height: 44px;
  padding: 0 12px;
  border: 1.5px solid var(--line);
  border-radius: 6px;
  background: var(--plate);
  color: inherit;
  font: inherit;
}
ul {
  display: grid;
  gap: 6px;
  list-style: none;
  margin: 0;
  padding: 0;
}
.bad {
  color: var(--out);
  font-weight: 600;
}
</style>
