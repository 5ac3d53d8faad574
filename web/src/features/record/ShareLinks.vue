<script setup lang="ts">
import { ref } from 'vue'
import { revokeLink, shareUnit } from '@/api/calls'
import type { Schemas } from '@/api/client'
import { useAsyncAction } from '@/api/useAsyncAction'

const props = defineProps<{ unit: number; links: Schemas['LinkOut'][] }>()
const emit = defineEmits<{ changed: [] }>()
const LASTS = [7, 30, 90, 365]
const days = ref(30)
const copied = ref('')
const { trouble, busy, run } = useAsyncAction()
const address = (link: Schemas['LinkOut']) => `${window.location.origin}${link.path}`
const make = () =>
  run(async () => {
    await shareUnit(props.unit, days.value)
    emit('changed')
  })
const takeBack = (id: string) =>
  run(async () => {
    await revokeLink(id)
    emit('changed')
  })
const copy = (link: Schemas['LinkOut']) =>
  run(async () => {
    await navigator.clipboard.writeText(address(link))
    copied.value = link.id
  })
const stateOf = (link: Schemas['LinkOut']) =>
  link.revoked
    ? 'taken back'
    : link.expired
      ? 'ended'
      : `until ${new Date(link.expires_at).toLocaleDateString('en-GB', { day: 'numeric', month: 'long', year: 'numeric' })}`
</script>

<template>
  <section class="links">
    <h2>
      Links for the customer
      <span class="muted">closed visits of this unit, for reading alone</span>
    </h2>
    <div class="pair">
      <button
        v-for="d in LASTS"
        :key="d"
        class="chip"
        :class="{ on: d === days }"
        :aria-pressed="d === days"
        @click="days = d"
      >
        {{ d }} days
      </button>
      <button class="btn strong" :disabled="busy" @click="make">Make a link</button>
    </div>
    <p v-if="trouble" class="trouble" role="alert">{{ trouble }}</p>
    <div
      v-for="link in links"
      :key="link.id"
      class="link"
      :class="{ off: link.revoked || link.expired }"
    >
      <code>{{ address(link) }}</code>
      <span class="muted">
        {{ stateOf(link) }} · {{ link.made_by }} · opened {{ link.opened }} ×
      </span>
      <template v-if="!link.revoked && !link.expired">
        <button class="btn" @click="copy(link)">
          {{ copied === link.id ? 'Copied' : 'Copy' }}
        </button>
        <button class="btn" :disabled="busy" @click="takeBack(link.id)">Take back</button>
      </template>
    </div>
  </section>
</template>

<style scoped>
.links {
  display: grid;
  gap: 9px;
  background: var(--plate);
  border: 1.5px solid var(--line);
  border-radius: 8px;
  padding: 12px 16px;
}
h2 {
  font-size: 18px;
}
h2 span {
  font-weight: 400;
  font-size: 15px;
  margin-left: 6px;
}
.pair {
  display: flex;
  gap: 7px;
  flex-wrap: wrap;
}
.chip {
  min-height: 44px;
  padding: 0 12px;
  border: 1.5px solid var(--line);
  border-radius: 6px;
  background: none;
}
.on {
  border-color: var(--in);
  background: var(--steady);
  font-weight: 600;
}
.trouble {
  color: var(--out);
  font-weight: 500;
}
.link {
  display: flex;
  flex-wrap: wrap;
  gap: 6px 12px;
  align-items: center;
  border-top: 1px dashed var(--line);
  padding-top: 7px;
}
code {
  flex: 1 1 320px;
  min-width: 0;
  overflow: hidden;
  text-overflow: ellipsis;
  white-space: nowrap;
  font-size: 14px;
}
.off code {
  text-decoration: line-through;
  color: var(--muted);
}
</style>
