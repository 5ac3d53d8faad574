<script setup lang="ts">
import type { Schemas } from '@/api/client'
import { clockAt, fullDay } from '@/ui/moments'
import StateMark from '@/ui/StateMark.vue'

/** What was sealed, to be held beside the paper. */
const props = defineProps<{ sealed: Schemas['SealedOut'] }>()
const groups = props.sealed.head.match(/.{1,8}/g) ?? []
const closed = `${fullDay(props.sealed.day)}, ${clockAt(props.sealed.closed_at, props.sealed.zone)}`
</script>

<template>
  <section :class="{ bad: !sealed.stands }">
    <h2>
      <StateMark :state="sealed.stands ? 'in' : 'out'" :size="20" />
      {{
        sealed.stands
          ? 'It stands as it was sealed'
          : 'What is stored is not what was sealed: ask the firm'
      }}
    </h2>
    <p>Compare it with the paper: where one of these differs, the paper was changed.</p>
    <dl>
      <dt>Firm</dt>
      <dd>{{ sealed.firm }}</dd>
      <dt>Unit</dt>
      <dd>{{ sealed.unit }}</dd>
      <dt>Closed</dt>
      <dd>{{ closed }}</dd>
      <dt>Standing</dt>
      <dd>{{ sealed.title }}</dd>
      <dt>Signed by</dt>
      <dd>{{ sealed.signed_by }}</dd>
      <dt>Entries</dt>
      <dd>
        {{ sealed.entries }}
        <template v-if="sealed.amendments">, amended since: {{ sealed.amendments }}</template>
      </dd>
      <dt>End of the tape</dt>
      <dd class="digits">{{ groups.join(' ') }}</dd>
      <dt>Key</dt>
      <dd class="digits">{{ sealed.key }}</dd>
    </dl>
  </section>
</template>

<style scoped>
section {
  padding: 18px 20px;
  border: 1.5px solid var(--line);
  border-left: 7px solid var(--in);
  border-radius: 8px;
  background: var(--plate);
}
.bad {
  border-left-color: var(--out);
}
h2 {
  display: flex;
  gap: 10px;
  align-items: center;
  margin-bottom: 8px;
  font-size: 20px;
}
dl {
  display: grid;
  grid-template-columns: max-content 1fr;
  gap: 6px 18px;
  margin: 12px 0 0;
}
dt {
  color: var(--muted);
}
dd {
  margin: 0;
  font-weight: 500;
}
.digits {
  font-variant-numeric: tabular-nums;
  overflow-wrap: anywhere;
}
</style>
