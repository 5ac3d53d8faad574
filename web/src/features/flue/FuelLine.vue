<script setup lang="ts">
import type { Schemas } from '@/api/client'

defineProps<{ page: Schemas['VisitPage']; flue: Schemas['FlueOut'] | undefined }>()
const W = 330, H = 200, O2 = 20.946, CO2 = 16
const x = (o2: number): number => (o2 / O2) * W
const y = (co2: number): number => H - (co2 / CO2) * H
const line = (most: number): string => `M0 ${y(most)}L${W} ${H}`
</script>

<template>
  <svg class="fuel" :viewBox="`-52 -8 ${W + 66} ${H + 46}`" role="img" aria-label="The point on the O₂–CO₂ line of this fuel">
    <rect :x="x(page.o2_doubt_pct.low)" y="0" :width="x(page.o2_doubt_pct.high - page.o2_doubt_pct.low)" :height="H" fill="var(--steady)" />
    <path :d="`M0 0V${H}H${W}`" fill="none" stroke="var(--muted)" />
    <path :d="line(page.other_fuel_line.co2_max_dry_pct)" stroke="var(--gas)" stroke-dasharray="4 4" fill="none" /><path :d="line(page.fuel_line.co2_max_dry_pct)" stroke="var(--gas)" stroke-width="3" fill="none" />
    <text :x="x(8.6)" :y="y(page.other_fuel_line.co2_max_dry_pct * 0.5) - 12" class="fuelname">{{ page.other_fuel_line.name }} would lie here</text><text :x="x(7.4)" :y="y(page.fuel_line.co2_max_dry_pct * 0.42)" text-anchor="end" class="fuelname">{{ page.fuel_line.name }}</text>
    <g v-if="flue && flue.o2_dry_pct !== null && flue.o2_dry_pct !== undefined && flue.co2_dry_pct !== null && flue.co2_dry_pct !== undefined">
      <ellipse :cx="x(flue.o2_dry_pct)" :cy="y(flue.co2_dry_pct)" :rx="Math.max(x(flue.o2_half_width), 7)" :ry="Math.max((flue.co2_half_width / CO2) * H, 7)" fill="none" stroke="var(--in)" stroke-width="2" /><circle :cx="x(flue.o2_dry_pct)" :cy="y(flue.co2_dry_pct)" r="4" fill="var(--in)" />
    </g>
    <text v-for="tick in [0, 5, 10, 15, 20]" :key="tick" :x="x(tick)" :y="H + 15" text-anchor="middle" class="tick">{{ tick }}</text><text v-for="tick in [5, 10, 15]" :key="`c${tick}`" x="-6" :y="y(tick) + 4" text-anchor="end" class="tick">{{ tick }}</text>
    <text :x="W / 2" :y="H + 32" text-anchor="middle">O₂ %, dry</text><text x="-50" y="6">CO₂ %</text>
  </svg>
</template>

<style scoped>.fuel { width: 100%; max-width: 420px } text { font: 14px var(--font); fill: var(--muted) } .fuelname { fill: var(--ink) } .tick { font-size: 12.5px }</style>
