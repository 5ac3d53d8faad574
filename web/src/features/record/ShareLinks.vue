<script setup lang="ts">
import { ref } from 'vue'
import { revokeLink, shareUnit } from '@/api/calls'
import type { Schemas } from '@/api/client'
import { useAsyncAction } from '@/api/useAsyncAction'
import Card from '@/ui/Card.vue'
import ChipRow from '@/ui/ChipRow.vue'
import { dayAt } from '@/ui/moments'

const props = defineProps<{ unit: number; zone: string; links: Schemas['LinkOut'][] }>()
const emit = defineEmits<{ changed: [] }>()
const LASTS = [7, 30, 90, 365].map((days) => ({ key: String(days), name: `${days} days` }))
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
      : `until ${dayAt(link.expires_at, props.zone)}`
</script>

<template>
  <Card title="Links for the customer" aside="closed visits of this unit, for reading alone">
    <div class="pair">
      <ChipRow
        label="It lasts"
        :options="LASTS"
        :chosen="String(days)"
        @choose="(key) => (days = Number(key))"
      />
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
  </Card>
</template>

<style scoped>
.pair {
  display: flex;
  gap: 7px;
  flex-wrap: wrap;
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
