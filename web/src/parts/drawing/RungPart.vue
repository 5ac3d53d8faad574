<script setup lang="ts">
import type { Schemas } from '@/api/client'
import StateMark from '@/ui/StateMark.vue'

/** A part of a rung between two nodes: a switch open or shut, a load, or a wire, with the volts across it. */
defineProps<{ part: Schemas['PartOut']; across: string }>()
defineEmits<{ touch: [] }>()
</script>

<template>
  <li class="part" :class="[part.kind, part.state, { shut: part.closed }]">
    <button class="name" :title="`Volts across: ${across}`" @click="$emit('touch')">
      <StateMark :state="part.state" :size="14" />
      <span>{{ part.name }}</span>
    </button>
    <svg class="conductor" viewBox="0 0 60 30" preserveAspectRatio="none" aria-hidden="true">
      <path d="M0 15H60" class="line" />
    </svg>
    <i v-if="part.kind === 'switch'" class="contact" />
    <i v-else-if="part.kind !== 'wire'" class="box" />
    <span class="drop">
      <b v-if="part.read">
        {{ part.read.text }}
        <small>{{ part.read.unit }}</small>
      </b>
    </span>
  </li>
</template>

<style scoped>
.part {
  position: relative;
  flex: 1;
  min-width: 0;
}
.name {
  display: flex;
  gap: 5px;
  align-items: flex-end;
  width: calc(100% + 30px);
  height: 62px;
  margin-left: -15px;
  padding: 0 2px 5px 14px;
  border: 0;
  background: none;
  overflow: hidden;
  text-align: left;
  font-size: 14.5px;
  font-weight: 500;
  line-height: 1.1;
}
.name svg {
  flex: none;
  margin-top: 1px;
}
.conductor {
  display: block;
  width: 100%;
  height: 44px;
}
.line {
  fill: none;
  stroke: var(--string);
  stroke-width: 7;
  vector-effect: non-scaling-stroke;
}
.switch .line {
  stroke-opacity: 0.85;
}
.switch:not(.shut) .line {
  stroke-opacity: 0.3;
}
.contact {
  position: absolute;
  top: 79px;
  left: calc(50% - 17px);
  width: 34px;
  height: 10px;
  border: 2.5px solid var(--string);
  border-radius: 5px;
  background: var(--plate);
}
.shut .contact {
  background: var(--string);
}
.switch:not(.shut) .contact {
  top: 70px;
  height: 4px;
  border: 0;
  background: var(--muted);
  rotate: -24deg;
}
.out .contact {
  border-color: var(--out);
  background: var(--out);
}
.out .line {
  stroke: var(--out);
  stroke-opacity: 0.5;
}
.box {
  position: absolute;
  top: 68px;
  left: calc(50% - 22px);
  width: 44px;
  height: 32px;
  border: 2.5px solid var(--string);
  border-radius: 5px;
  background: var(--plate);
}
.out .box {
  border-color: var(--out);
}
.drop {
  display: block;
  margin-top: -4px;
  text-align: center;
  white-space: nowrap;
  font-size: 16px;
}
.out .drop b {
  color: var(--out);
}
small {
  font-size: 13px;
  font-weight: 500;
  color: var(--muted);
}
@media (max-width: 800px) {
  .part {
    width: 100%;
    min-height: 56px;
    padding-left: 58px;
  }
  .name {
    align-items: center;
    width: 100%;
    height: 56px;
    margin: 0;
    padding: 0;
    font-size: 17px;
  }
  .name svg {
    margin: 0;
  }
  .conductor {
    position: absolute;
    top: 0;
    left: 19px;
    width: 7px;
    height: 100%;
    background: var(--string);
  }
  .line {
    display: none;
  }
  .contact,
  .switch:not(.shut) .contact {
    top: 24px;
    left: 9px;
  }
  .box {
    top: 12px;
    left: 1px;
  }
  .drop {
    position: absolute;
    top: 17px;
    right: 6px;
  }
}
</style>
