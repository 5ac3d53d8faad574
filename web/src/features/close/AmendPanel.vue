<script setup lang="ts">
import { NInput } from 'naive-ui'
import { computed, ref } from 'vue'
import { amendVisit } from '@/api/calls'
import { ApiError, type Schemas } from '@/api/client'
import { momentAt } from '@/ui/moments'
import { localIso } from '@/outbox/device'

const props = defineProps<{ page: Schemas['VisitPage']; mayWrite: boolean }>()
const emit = defineEmits<{ page: [page: Schemas['VisitPage']] }>()
const open = ref(false)
const lines = ref('')
const why = ref('')
const asNotes = ref(false)
const refused = ref<string[]>([])
const busy = ref(false)
let key = crypto.randomUUID()
const given = computed(() =>
  lines.value
    .split('\n')
    .map((line) => line.trim())
    .filter(Boolean),
)

/** Keeps the amendment; the same id is sent until the server has it, so that a lost answer writes it once. */
async function keep(): Promise<void> {
  busy.value = true
  refused.value = []
  try {
    const rows = given.value.map((text) => ({ text, as_note: asNotes.value }))
    const page = await amendVisit(props.page.id, {
      id: key,
      lines: rows,
      why: why.value,
      at: localIso(new Date()),
    })
    key = crypto.randomUUID()
    lines.value = why.value = ''
    open.value = asNotes.value = false
    emit('page', page)
  } catch (error) {
    refused.value =
      error instanceof ApiError
        ? [error.message, ...error.details.filter((d) => !error.message.includes(d))]
        : [String(error)]
  } finally {
    busy.value = false
  }
}
</script>

<template>
  <section class="amendments">
    <h2>Amendments</h2>
    <p v-if="!page.close.amendments.length" class="muted">
      None. What was signed stands; what has to be said afterwards is kept beside it with its own
      date and paper.
    </p>
    <article v-for="row in page.close.amendments" :key="row.id">
      <h3>{{ momentAt(row.at, page.zone) }} · {{ row.author }}</h3>
      <p v-for="line in row.lines" :key="line">{{ line }}</p>
      <p class="muted">Why: {{ row.why }}</p>
      <p v-if="row.adds"><b>This leaves something open: the unit’s next visit takes it up.</b></p>
      <a class="btn" :href="`/api/amendments/${row.id}.pdf`" target="_blank" rel="noopener">
        Paper of this amendment
      </a>
    </article>
    <button v-if="mayWrite && !open" class="btn" @click="open = true">Amend this visit</button>
    <form v-if="open" @submit.prevent="keep">
      <label>
        What has to be said, one line each, as in the bar
        <NInput
          v-model:value="lines"
          type="textarea"
          :autosize="{ minRows: 2 }"
          placeholder="told owner, in writing"
          :input-props="{ name: 'amend-lines' }"
        />
      </label>
      <label>
        Why now
        <NInput
          v-model:value="why"
          placeholder="forgotten on the day"
          :input-props="{ name: 'amend-why' }"
        />
      </label>
      <label class="tick">
        <input v-model="asNotes" type="checkbox" />
        Keep the lines as notes, word for word
      </label>
      <ul v-if="refused.length" class="refused" role="alert">
        <li v-for="line in refused" :key="line">{{ line }}</li>
      </ul>
      <p class="muted">
        An amendment lifts nothing: what shows that a danger is gone is shown on a visit.
      </p>
      <p class="row">
        <button class="btn strong" :disabled="busy || !given.length">Keep the amendment</button>
        <button type="button" class="btn" @click="open = false">Not now</button>
      </p>
    </form>
  </section>
</template>

<style scoped>
.amendments {
  display: grid;
  gap: 10px;
  justify-items: start;
}
h2 {
  font-size: 18px;
  font-weight: 600;
}
h3 {
  font-size: 16px;
  font-weight: 600;
}
article {
  display: grid;
  gap: 4px;
  justify-items: start;
  padding-bottom: 8px;
  border-bottom: 1px dashed var(--line);
}
form {
  display: grid;
  gap: 10px;
  width: min(100%, 640px);
}
label {
  display: grid;
  gap: 4px;
  font-weight: 500;
}
.tick {
  display: flex;
  align-items: center;
  gap: 10px;
  min-height: 44px;
}
.tick input {
  width: 22px;
  height: 22px;
}
.row {
  display: flex;
  gap: 10px;
  flex-wrap: wrap;
}
.refused {
  margin: 0;
  padding-left: 20px;
  color: var(--out);
  font-weight: 600;
}
</style>
