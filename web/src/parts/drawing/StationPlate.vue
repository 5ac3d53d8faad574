<script setup lang="ts">
import { computed } from 'vue'
import type { Schemas } from '@/api/client'
import ScaleBar from '@/ui/ScaleBar.vue'
import StateMark from '@/ui/StateMark.vue'

const props = defineProps<{ station: Schemas['StationOut']; path: string; chosen: boolean }>()
defineEmits<{ pick: [] }>()
const foot = computed(() => props.station.words || (props.station.scale ? '' : props.station.side))
const side = computed(() => (props.station.words && !props.station.value ? '' : props.station.side))
/** True where number, unit and limit are longer than the plate is wide: a limit that is cut reads as another one. */
const tight = computed(() => {
  const value = props.station.value
  const length = value ? value.text.length + value.unit.length + side.value.length : 0
  return !!value && (value.unit.length > 4 || length > 18)
})
</script>

<template>
  <button
    class="plate"
    :class="{ chosen, dense: station.value && station.scale && foot }"
    :style="{ '--path': `var(--${path})` }"
    :data-station="station.key"
    @click="$emit('pick')"
  >
    <span class="name">
      <StateMark :state="station.state" />
      {{ station.name }}
    </span>
    <span v-if="station.value" class="row" :class="{ tight }">
      <b class="value">{{ station.value.text }}</b>
      <span class="unit">{{ station.value.unit }}</span>
      <span v-if="side && foot !== side" class="side">{{ side }}</span>
    </span>
    <ScaleBar
      v-if="station.scale"
      :scale="station.scale"
      :state="station.state === 'none' ? 'in' : station.state"
    />
    <span v-if="foot" class="words" :class="{ alarm: station.jumpered }">{{ foot }}</span>
  </button>
</template>

<style scoped>
.plate {
  position: relative;
  display: flex;
  flex-direction: column;
  justify-content: space-evenly;
  gap: 1px;
  min-height: 74px;
  width: 100%;
  padding: 6px 14px 8px 17px;
  text-align: left;
  background: var(--plate);
  border: 1.5px solid var(--line);
  border-radius: 7px;
  overflow: hidden;
}
.plate::before {
  content: '';
  position: absolute;
  inset: -1px auto -1px -1px;
  width: 7px;
  background: var(--path);
}
.plate:hover {
  border-color: var(--muted);
}
.chosen {
  border: 2.5px solid var(--ink);
}
.dense .value {
  font-size: 21px;
}
.dense {
  padding-block: 4px;
}
.dense .words {
  font-size: 14px;
}
.dense :deep(.scale) {
  margin-top: 5px;
}
.name {
  display: flex;
  align-items: center;
  gap: 7px;
  font-weight: 500;
  line-height: 1.15;
}
.row {
  display: flex;
  align-items: baseline;
  gap: 6px;
  white-space: nowrap;
}
.value {
  font-size: 26px;
  font-weight: 600;
  line-height: 1;
}
.unit {
  color: var(--muted);
}
.side {
  margin-left: auto;
  color: var(--muted);
  font-size: 14.5px;
  overflow: hidden;
  text-overflow: ellipsis;
}
.tight {
  gap: 4px;
}
.tight .value {
  font-size: 23px;
}
.tight .unit,
.tight .side {
  font-size: 13.5px;
}
.words {
  color: var(--muted);
  font-size: 15px;
  line-height: 1.2;
  overflow: hidden;
  text-overflow: ellipsis;
  display: -webkit-box;
  -webkit-line-clamp: 2;
  -webkit-box-orient: vertical;
}
.alarm {
  color: var(--out);
  font-weight: 700;
}
</style>
