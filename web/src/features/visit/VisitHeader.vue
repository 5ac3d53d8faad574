<script setup lang="ts">
import { useNow } from '@vueuse/core'
import { computed } from 'vue'
import type { Schemas } from '@/api/client'
import { useBar } from '@/parts/desk/bar'
import FindAnything from '@/parts/find/FindAnything.vue'
import { useTheme } from '@/ui/theme'
import { useTitle } from '@/ui/title'
import { VIEWS, type ViewName } from './keyboard'

const props = defineProps<{
  page: Schemas['VisitPage']
  view: ViewName
  waiting: number
  stale: boolean
}>()
const bar = useBar()
const theme = useTheme()
const viewName = computed(() => VIEWS.find((row) => row.view === props.view)?.name ?? '')
useTitle(() => `${props.page.unit_name}, ${viewName.value.toLowerCase()}`)
const now = useNow({ interval: 10_000 })
const begun = computed(() => props.page.tape.at(-1)?.at)
const elapsed = computed(() => {
  if (!begun.value || props.page.close.closed_at) return ''
  const minutes = Math.max(
    0,
    Math.floor((now.value.getTime() - new Date(begun.value).getTime()) / 60_000),
  )
  return `${Math.floor(minutes / 60)}:${String(minutes % 60).padStart(2, '0')}`
})
const overdue = computed(() =>
  props.page.instruments.filter((one) => one.in_hand && !one.in_date).map((one) => one.name),
)
</script>

<template>
  <header>
    <RouterLink to="/" class="back" aria-label="Back to the round">‹</RouterLink>
    <h1>{{ page.unit_name }}</h1>
    <span class="line">
      <span>{{ page.unit_line }}</span>
      <span>{{ page.reason }} · house rules: {{ page.rules }}</span>
    </span>
    <FindAnything folded class="find" />
    <span class="chips">
      <span class="chip" :class="{ warn: !page.room_co }">
        Room CO {{ page.room_co ? `${page.room_co.text} ${page.room_co.unit}` : 'not read' }}
      </span>
      <button v-if="overdue.length" class="chip wide warn" @click="bar.choosesInstruments = true">
        {{ overdue.length }} calibration{{ overdue.length === 1 ? '' : 's' }} overdue:
        {{ overdue.join(', ').toLowerCase() }}
      </button>
      <span class="chip" :class="{ warn: waiting || stale }">
        <span v-if="!stale || waiting" class="long">On this tablet ·&nbsp;</span>
        {{ stale && !waiting ? 'Server not reached' : `${waiting} to send` }}
      </span>
      <button class="chip" @click="theme.toggle()">
        {{ theme.cellar ? 'Daylight' : 'Cellar' }}
      </button>
      <b v-if="elapsed" class="clock" title="Hours and minutes since the first entry">
        {{ elapsed }}
      </b>
    </span>
  </header>
</template>

<style scoped>
header {
  position: relative;
  grid-area: head;
  display: flex;
  align-items: center;
  gap: 14px;
  min-width: 0;
  padding: 0 16px 0 4px;
  background: var(--bar);
  color: var(--bar-ink);
}
.back {
  display: grid;
  place-content: center;
  width: 44px;
  height: 44px;
  font-size: 32px;
  color: inherit;
  text-decoration: none;
}
h1 {
  font-size: 21px;
  font-weight: 600;
  white-space: nowrap;
}
.line {
  display: grid;
  min-width: 0;
  font-size: 15px;
  line-height: 1.2;
  color: var(--bar-muted);
  white-space: nowrap;
}
.line span {
  overflow: hidden;
  text-overflow: ellipsis;
}
.find {
  flex: 0 0 auto;
  margin-left: auto;
}
.chips {
  display: flex;
  gap: 10px;
  align-items: center;
  white-space: nowrap;
}
.chip {
  min-height: 32px;
  display: inline-flex;
  align-items: center;
  padding: 0 11px;
  font-size: 15px;
  border: 1px solid var(--bar-line);
  border-radius: 5px;
  background: none;
  color: inherit;
}
button.chip {
  min-height: 44px;
}
.warn {
  border-color: var(--asks);
  color: var(--asks);
}
.clock {
  font-size: 19px;
  min-width: 40px;
  text-align: right;
}
@media (max-width: 1400px) {
  .long {
    display: none;
  }
}
@media (max-width: 1100px) {
  .wide {
    display: none;
  }
}
@media (max-width: 800px) {
  .line,
  .clock {
    display: none;
  }
  header {
    gap: 4px;
    padding-right: 8px;
  }
  h1 {
    font-size: 18px;
    overflow: hidden;
    text-overflow: ellipsis;
    min-width: 0;
  }
  .chips {
    gap: 6px;
  }
  .chip {
    font-size: 14px;
    padding: 0 8px;
  }
  .back {
    width: 36px;
  }
  button.chip {
    display: none;
  }
}
</style>
