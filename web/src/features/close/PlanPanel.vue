<script setup lang="ts">
import type { Schemas } from '@/api/client'
import Card from '@/ui/Card.vue'
import { clockAt } from '@/ui/moments'
import FrostCard from './FrostCard.vue'
import PartsCard from './PartsCard.vue'
import ReturnsCard from './ReturnsCard.vue'

/** What comes after the visit, how the work was done, and the ledger of what was left abnormal. */
const props = defineProps<{ closing: Schemas['ClosingOut']; page: Schemas['VisitPage'] }>()
defineEmits<{ begin: [starter: string]; planned: [] }>()

function span(row: Schemas['LedgerOut']): string {
  const since = `${clockAt(row.since, props.page.zone)} ${row.by}${row.found ? ', found so' : ''}`
  const until = row.until
    ? `made good ${clockAt(row.until, props.page.zone)} ${row.until_by}`
    : 'still so'
  return `${since}, ${until}`
}
</script>

<template>
  <FrostCard
    v-if="closing.frost"
    :frost="closing.frost"
    :writable="page.writable"
    @begin="(starter) => $emit('begin', starter)"
  />
  <PartsCard
    v-if="closing.parts.length"
    :parts="closing.parts"
    :writable="page.writable"
    @begin="(starter) => $emit('begin', starter)"
  />
  <ReturnsCard
    v-if="closing.returns.length"
    :returns="closing.returns"
    :page="page"
    @planned="$emit('planned')"
  />
  <Card v-if="closing.remarks.length" title="How the work was done" aside="changes no standing">
    <p v-for="line in closing.remarks" :key="line">{{ line }}</p>
  </Card>
  <Card v-if="closing.ledger.length" title="The ledger">
    <p v-for="row in closing.ledger" :key="row.since + row.text" :class="{ open: !row.until }">
      {{ row.text }}
      <span class="muted">{{ span(row) }}</span>
    </p>
  </Card>
</template>

<style scoped>
.open {
  color: var(--out);
  font-weight: 500;
}
</style>
