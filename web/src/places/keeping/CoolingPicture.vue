<script setup lang="ts">
/** How a sauce cools: its hottest point as reckoned and as a probe has it, with where the rules want it. */
import { computed } from 'vue'
import type { Schemas } from '@/api/client'
import { temperature } from '@/parts/ways'

const props = defineProps<{
  cooling: Schemas['Cooling']
  seen?: Schemas['CoolingSeen'] | null
  read?: Schemas['ReadPoint'][]
  nowMin?: number
}>()
const WIDE = 720
const HIGH = 300
const ends = computed(() => {
  const limits = props.cooling.stages.map((one) => props.cooling.clock_from_min + one.limit_min)
  const seen = props.seen?.curve.at(-1)?.at_min ?? 0
  return Math.max(...limits, props.cooling.curve.at(-1)?.at_min ?? 60, seen) * 1.04
})
const top = computed(() => Math.max(70, props.cooling.curve[0]?.hottest_c ?? 70) + 5)
const x = (minutes: number) => 46 + ((WIDE - 60) * Math.min(minutes, ends.value)) / ends.value
const y = (celsius: number) => 12 + ((HIGH - 44) * (top.value - celsius)) / (top.value + 5)
const path = (points: Schemas['CurvePoint'][]) =>
  points.map((one, n) => `${n ? 'L' : 'M'}${x(one.at_min).toFixed(1)},${y(one.hottest_c).toFixed(1)}`).join('')
const gates = computed(() =>
  props.cooling.stages.map((one, n) => ({
    ...one,
    at: props.cooling.clock_from_min + one.limit_min,
    from: n ? props.cooling.clock_from_min + props.cooling.stages[n - 1]!.limit_min : props.cooling.clock_from_min,
  })),
)
const clock = (minutes: number) =>
  minutes < 90
    ? `${Math.round(minutes)} min`
    : `${Math.floor(Math.round(minutes) / 60)} h ${String(Math.round(minutes) % 60).padStart(2, '0')}`
</script>

<template>
  <svg class="cooling" :viewBox="`0 0 ${WIDE} ${HIGH}`" role="img" :aria-label="`Cooling: ${cooling.words}`">
    <g
      v-for="gate in gates"
      :key="gate.to_c"
      class="gate"
      :class="{ met: (seen?.stages ?? cooling.stages).find((s) => s.to_c === gate.to_c)?.met }"
    >
      <path :d="`M${x(gate.from)},${y(gate.to_c)}H${x(gate.at)}V${y(-5)}`" />
      <text :x="x(gate.at) - 4" :y="y(gate.to_c) - 6" text-anchor="end">
        {{ temperature(gate.to_c) }} by {{ clock(gate.at) }}
      </text>
    </g>
    <path class="plan" :d="path(cooling.curve)" />
    <path v-if="seen" class="seen" :d="path(seen.curve)" />
    <circle v-for="(one, n) in read ?? []" :key="n" class="read" :cx="x(one.at_min)" :cy="y(one.celsius)" r="5" />
    <line v-if="nowMin !== undefined && nowMin < ends" class="now" :x1="x(nowMin)" :x2="x(nowMin)" y1="6" :y2="y(-5)" />
    <text v-for="c in [0, 20, 40, 60, 80]" :key="c" class="axis" x="40" :y="y(c) + 5" text-anchor="end">{{ c }}</text>
    <text class="axis" :x="x(0)" :y="HIGH - 8">put away</text>
    <text class="axis" :x="x(ends)" :y="HIGH - 8" text-anchor="end">{{ clock(ends) }}</text>
  </svg>
</template>

<style scoped>
.cooling {
  width: 100%;
  max-height: 44vh;
  border-radius: 12px;
  background: var(--white);
}
text {
  font-size: 15px;
  fill: var(--ink);
}
.axis {
  fill: var(--ink2);
  font-size: 14px;
}
.gate path {
  fill: none;
  stroke: var(--russet);
  stroke-width: 3;
}
.gate.met path {
  stroke: var(--leaf);
}
.plan {
  fill: none;
  stroke: var(--ink);
  stroke-width: 3;
}
.seen {
  fill: none;
  stroke: var(--butter);
  stroke-width: 4;
  stroke-dasharray: 9 6;
}
.read {
  fill: var(--ink);
}
.now {
  stroke: var(--ink2);
  stroke-width: 1.5;
}
</style>
