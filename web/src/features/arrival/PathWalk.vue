<script setup lang="ts">
import { computed, ref } from 'vue'
import type { Schemas } from '@/api/client'
import { useDesk } from '@/parts/desk/desk'
import Card from '@/ui/Card.vue'
import { levelState } from '@/ui/levels'
import StateMark from '@/ui/StateMark.vue'

/** Looks along the paths: two touches write one. */
const props = defineProps<{ page: Schemas['VisitPage']; walks: Schemas['WalkOut'][] }>()
const desk = useDesk()
const open = ref('')
const found = computed(() => {
  const looks = props.page.tape.filter((e) => e.kind === 'condition' && !e.corrected_by)
  return new Set(looks.map((e) => e.text))
})
const seenAt = (stop: Schemas['StopOut']) =>
  stop.looks.filter((look) => found.value.has(look.text)).length
</script>

<template>
  <Card title="Look along the paths" aside="two touches write it; a photo goes with the station">
    <div class="walks">
      <div
        v-for="path in walks"
        :key="path.path"
        class="walk"
        :style="{ '--path': `var(--${path.path})`, '--path-ink': `var(--${path.path}-ink)` }"
      >
        <h3>{{ path.name }}</h3>
        <div v-for="stop in path.stops" :key="stop.station">
          <button
            class="where"
            :aria-expanded="open === stop.station"
            @click="open = open === stop.station ? '' : stop.station"
          >
            {{ stop.name }}
            <span class="muted">{{ seenAt(stop) || '' }}</span>
          </button>
          <div v-if="open === stop.station" class="looks">
            <button
              v-for="look in stop.looks"
              :key="look.line"
              class="btn look"
              :class="{ done: found.has(look.text) }"
              :disabled="!page.writable"
              @click="desk.begin(look.line, stop.station)"
            >
              <StateMark :state="look.weight ? levelState(look.weight) : 'in'" :size="13" />
              {{ look.text }}
            </button>
          </div>
        </div>
      </div>
    </div>
  </Card>
</template>

<style scoped>
.walks {
  display: grid;
  grid-template-columns: repeat(auto-fit, minmax(190px, 1fr));
  gap: 14px;
  align-items: start;
}
.walk {
  border-left: 6px solid var(--path);
  padding-left: 10px;
}
h3 {
  margin-bottom: 4px;
  font-size: 17px;
  color: var(--path-ink);
}
.where {
  display: flex;
  justify-content: space-between;
  align-items: center;
  width: 100%;
  min-height: 44px;
  padding: 0;
  border: 0;
  border-bottom: 1px solid var(--line);
  background: none;
  text-align: left;
  font-weight: 500;
}
.looks {
  display: grid;
  gap: 5px;
  padding: 6px 0 10px;
}
.look {
  display: flex;
  gap: 8px;
  align-items: center;
  padding: 4px 10px;
  text-align: left;
  line-height: 1.15;
}
.look svg {
  flex: none;
}
.done {
  background: var(--steady);
}
</style>
