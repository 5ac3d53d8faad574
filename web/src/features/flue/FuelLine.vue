<script setup lang="ts">
import { computed } from 'vue'
import type { Schemas } from '@/api/client'
import type { Buffers } from '@/parts/live/buffers'
import { fixed } from '@/ui/formats'
import { trailOf } from './trail'

const props = defineProps<{ page: Schemas['VisitPage']; stage: string; live: Buffers }>()
const W = 330,
  H = 200,
  O2 = 20.946,
  CO2 = 16
const x = (o2: number): number => (o2 / O2) * W
const y = (co2: number): number => H - (co2 / CO2) * H
const line = (most: number): string => `M0 ${y(most)}L${W} ${H}`
/** Every stage that has a sample; the one in hand is drawn strong. */
const points = computed(() =>
  props.page.flue.flatMap((f) =>
    f.o2_dry_pct === null ||
    f.o2_dry_pct === undefined ||
    f.co2_dry_pct === null ||
    f.co2_dry_pct === undefined
      ? []
      : [
          {
            stage: f.stage,
            label: f.label,
            o2: f.o2_dry_pct,
            co2: f.co2_dry_pct,
            wide: f.o2_half_width,
            high: f.co2_half_width,
          },
        ],
  ),
)
/** Without a cell for CO₂ the live point runs on this fuel's line. */
const trail = computed(() =>
  trailOf(props.live, (o2) => props.page.fuel_line.co2_max_dry_pct * (1 - o2 / O2)),
)
const now = computed(() => trail.value.at(-1))
</script>

<template>
  <svg
    class="fuel"
    :viewBox="`-52 -8 ${W + 66} ${H + 46}`"
    role="img"
    aria-label="The point on the O₂–CO₂ line of this fuel"
  >
    <rect
      :x="x(page.o2_doubt_pct.low)"
      y="0"
      :width="x(page.o2_doubt_pct.high - page.o2_doubt_pct.low)"
      :height="H"
      fill="var(--steady)"
    />
    <path :d="`M0 0V${H}H${W}`" fill="none" stroke="var(--muted)" />
    <path
      :d="line(page.other_fuel_line.co2_max_dry_pct)"
      stroke="var(--gas)"
      stroke-dasharray="4 4"
      fill="none"
    />
    <path
      :d="line(page.fuel_line.co2_max_dry_pct)"
      stroke="var(--gas)"
      stroke-width="3"
      fill="none"
    />
    <text :x="x(8.6)" :y="y(page.other_fuel_line.co2_max_dry_pct * 0.5) - 12" class="fuelname">
      {{ page.other_fuel_line.name }} would lie here
    </text>
    <text
      :x="x(7.4)"
      :y="y(page.fuel_line.co2_max_dry_pct * 0.42)"
      text-anchor="end"
      class="fuelname"
    >
      {{ page.fuel_line.name }}
    </text>
    <g v-for="p in points" :key="p.stage" :opacity="p.stage === stage ? 1 : 0.55">
      <ellipse
        :cx="x(p.o2)"
        :cy="y(p.co2)"
        :rx="Math.max(x(p.wide), 7)"
        :ry="Math.max((p.high / CO2) * H, 7)"
        fill="none"
        stroke="var(--in)"
        stroke-width="2"
      />
      <circle :cx="x(p.o2)" :cy="y(p.co2)" r="4" fill="var(--in)" />
      <text
        v-if="points.length > 1"
        :x="x(p.o2) + 12"
        :y="y(p.co2) + (p.stage === 'low' ? 20 : -8)"
        class="fuelname"
      >
        {{ p.label }}
      </text>
    </g>
    <g v-if="now" class="live">
      <circle
        v-for="(p, i) in trail"
        :key="i"
        :cx="x(p.o2)"
        :cy="y(p.co2)"
        r="2"
        fill="var(--near)"
        :opacity="(i + 1) / trail.length"
      />
      <path
        :d="`M${x(now.o2)} ${y(now.co2) - 8}l7 8-7 8-7-8z`"
        fill="none"
        stroke="var(--near)"
        stroke-width="2.5"
      />
      <text :x="W" y="12" text-anchor="end" class="fuelname">
        now {{ fixed(now.o2, 1) }} % O₂{{ now.measured ? '' : ', on the line' }}
      </text>
    </g>
    <text
      v-for="tick in [0, 5, 10, 15, 20]"
      :key="tick"
      :x="x(tick)"
      :y="H + 15"
      text-anchor="middle"
      class="tick"
    >
      {{ tick }}
    </text>
    <text
      v-for="tick in [5, 10, 15]"
      :key="`c${tick}`"
      x="-6"
      :y="y(tick) + 4"
      text-anchor="end"
      class="tick"
    >
      {{ tick }}
    </text>
    <text :x="W / 2" :y="H + 32" text-anchor="middle">O₂ %, dry</text>
    <text x="-50" y="6">CO₂ %</text>
  </svg>
</template>

<style scoped>
.fuel {
  width: 100%;
  max-width: 420px;
}
text {
  font: 14px var(--font);
  fill: var(--muted);
}
.fuelname {
  fill: var(--ink);
}
.tick {
  font-size: 12.5px;
}
</style>
