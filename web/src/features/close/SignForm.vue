<script setup lang="ts">
import { useSessionStorage } from '@vueuse/core'
import { NInput } from 'naive-ui'
import { computed, ref } from 'vue'
import type { Schemas } from '@/api/client'
import { notReached } from '@/outbox/notReached'
import { useOutbox } from '@/outbox/useOutbox'
import Card from '@/ui/Card.vue'
import SignaturePad from './SignaturePad.vue'
import WayLeft from './WayLeft.vue'

/** Words to the customer, how the unit is left, and the signature under it. */
const props = defineProps<{
  page: Schemas['VisitPage']
  me: Schemas['Me'] | undefined
  /** What is still to be said here. */
  obstacles: string[]
  /** True while a step holds the visit open. */
  held: boolean
  waiting: number
}>()
const outbox = useOutbox()
const words = useSessionStorage(`words-${props.page.id}`, '')
const signature = ref<Schemas['CloseIn']['signature']>([])
const name = ref('')
const chosen = ref<NonNullable<Schemas['CloseIn']['left']> | null>(null)
/** The close as it was signed: kept on the tablet until the server has taken it, or said why not. */
const closing = computed(() =>
  outbox.mine.find((item) => item.kind === 'closing' && item.visit === props.page.id),
)
const busy = computed(() => !!closing.value && !closing.value.refused)
const refused = computed(() => {
  const said = closing.value?.refused
  return said?.details.length ? said.details : said ? [said.why] : []
})
/** What is to be sent before it: the close itself is not counted. */
const before = computed(() => props.waiting - (busy.value ? 1 : 0))
const signedBy = computed(
  () => name.value.trim() || (signature.value.length ? (props.me?.name ?? '') : ''),
)
const leftAs = computed(() => {
  const way = props.page.close.ways.find((row) => row.key === chosen.value)
  return (way?.name ?? props.page.standing.title).toLowerCase()
})

function close(): void {
  const body = {
    seen_version: props.page.version,
    customer_words: words.value,
    signed_by: signedBy.value,
    signature: signature.value,
    left: chosen.value,
  }
  outbox.add(props.page.id, { kind: 'closing', body }, closing.value?.id)
}
</script>

<template>
  <Card title="Words to the customer">
    <form @submit.prevent="close">
      <NInput
        v-model:value="words"
        type="textarea"
        :autosize="{ minRows: 3 }"
        :input-props="{ 'aria-label': 'Words to the customer' }"
        placeholder="In plain words: what was wrong, what was done, what you advise."
      />
      <WayLeft v-model="chosen" :ways="page.close.ways" :said="page.standing.leaving" />
      <h2>Sign</h2>
      <div class="two">
        <label>
          Your name
          <NInput
            v-model:value="name"
            :placeholder="me?.name"
            :input-props="{ name: 'signed-by' }"
          />
        </label>
        <SignaturePad v-model="signature" />
      </div>
      <ul v-if="(obstacles.length || held) && !refused.length" class="held">
        <li v-if="held">Steps that hold the visit open are marked above.</li>
        <li v-for="line in obstacles" :key="line">{{ line }}</li>
      </ul>
      <ul v-if="refused.length" class="refused" role="alert">
        <li v-for="line in refused" :key="line">{{ line }}</li>
      </ul>
      <p v-if="before" class="refused">
        {{ notReached(before) }}: closing waits for {{ before === 1 ? 'it' : 'them' }}.
      </p>
      <p v-if="busy && outbox.unreachable" role="status">
        Signed, and kept on this tablet: it is closed when the server is reached.
      </p>
      <button class="btn strong big" :disabled="busy || !!before">
        {{ busy ? 'Closing …' : `Close the visit: ${leftAs}` }}
      </button>
    </form>
  </Card>
</template>

<style scoped>
form {
  display: grid;
  gap: 8px;
}
h2 {
  font-size: 18px;
  font-weight: 600;
}
.two {
  display: grid;
  grid-template-columns: minmax(0, 1fr);
  gap: 10px;
}
label {
  display: grid;
  gap: 4px;
  align-content: start;
}
.big {
  min-height: 54px;
  font-size: 18px;
  justify-self: start;
  padding: 0 28px;
}
.held {
  margin: 0;
  padding-left: 20px;
  font-weight: 500;
}
.refused {
  margin: 0;
  padding-left: 20px;
  color: var(--out);
  font-weight: 600;
}
@media (max-width: 800px) {
  .two {
    grid-template-columns: 1fr;
  }
  .big {
    width: 100%;
  }
}
</style>
