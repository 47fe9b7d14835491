<script setup lang="ts">
/** How a sauce cools: its hottest point as the sum has it, what was measured, how it goes on, and where the rules
 * want it. What is measured wins: the sum is thin once something was. */
import { computed } from 'vue'
import type { Schemas } from '@/api/client'
import { temperature } from '@/parts/ways'

const props = defineProps<{
  cooling: Schemas['Cooling']
  tray?: Schemas['TrayOut'] | null
  read?: Schemas['ReadPoint'][]
  nowMin?: number
}>()
const WIDE = 720
const HIGH = 300
/** Where the rule's clock stands for a stage: by what was read, else by the sum. */
const gates = computed(() =>
  props.cooling.stages.map((stage, n) => {
    const fact = props.tray?.stages.find((one) => one.to_c === stage.to_c)
    const begins = fact?.due_min != null ? fact.due_min - fact.limit_min : props.cooling.clock_from_min
    return {
      to_c: stage.to_c,
      at: begins + stage.limit_min,
      from: begins + (n ? props.cooling.stages[n - 1]!.limit_min : 0),
      state: fact?.verdict ?? (stage.met ? 'met' : 'missed'),
    }
  }),
)
const curve = computed(() => props.tray?.forecast?.curve ?? [])
const first = computed(() => Math.min(0, ...(props.read ?? []).map((one) => one.at_min)))
const ends = computed(
  () =>
    Math.max(
      ...gates.value.map((gate) => gate.at),
      props.cooling.curve.at(-1)?.at_min ?? 60,
      ...(props.read ?? []).map((one) => one.at_min),
    ) * 1.04,
)
const top = computed(
  () => Math.max(70, props.cooling.curve[0]?.hottest_c ?? 70, ...(props.read ?? []).map((one) => one.celsius)) + 5,
)
const x = (minutes: number) =>
  46 + ((WIDE - 60) * (Math.min(minutes, ends.value) - first.value)) / (ends.value - first.value)
const y = (celsius: number) => 12 + ((HIGH - 44) * (top.value - celsius)) / (top.value + 5)
const line = (points: { at: number; c: number }[]) =>
  points.map((one, n) => `${n ? 'L' : 'M'}${x(one.at).toFixed(1)},${y(one.c).toFixed(1)}`).join('')
const sum = computed(() => line(props.cooling.curve.map((one) => ({ at: one.at_min, c: one.hottest_c }))))
const likely = computed(() => line(curve.value.map((one) => ({ at: one.at_min, c: one.middle_c }))))
const band = computed(() => {
  const low = curve.value.map((one) => ({ at: one.at_min, c: one.low_c }))
  const high = curve.value.map((one) => ({ at: one.at_min, c: one.high_c }))
  return low.length ? `${line([...low, ...high.reverse()])}Z` : ''
})
const clock = (minutes: number) =>
  minutes < 90
    ? `${Math.round(minutes)} min`
    : `${Math.floor(Math.round(minutes) / 60)} h ${String(Math.round(minutes) % 60).padStart(2, '0')}`
</script>

<template>
  <svg class="cooling" :viewBox="`0 0 ${WIDE} ${HIGH}`" role="img" :aria-label="`Cooling: ${cooling.words}`">
    <g v-for="gate in gates" :key="gate.to_c" class="gate" :class="`is-${gate.state}`">
      <path :d="`M${x(gate.from)},${y(gate.to_c)}H${x(gate.at)}V${y(-5)}`" />
      <text :x="x(gate.at) - 4" :y="y(gate.to_c) - 6" text-anchor="end">
        {{ temperature(gate.to_c) }} by {{ clock(gate.at) }}
      </text>
    </g>
    <path class="sum" :class="{ behind: read?.length }" :d="sum" />
    <path v-if="band" class="band" :d="band" />
    <path v-if="likely" class="likely" :d="likely" />
    <template v-for="(one, n) in read ?? []" :key="n">
      <path
        v-if="one.void"
        class="void"
        :d="`M${x(one.at_min) - 5},${y(one.celsius) - 5}l10,10m0,-10l-10,10`"
        aria-label="corrected"
      />
      <circle v-else class="read" :cx="x(one.at_min)" :cy="y(one.celsius)" r="5" />
    </template>
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
.gate.is-met path {
  stroke: var(--leaf);
}
.gate.is-open path {
  stroke: var(--ink2);
  stroke-dasharray: 3 5;
}
.sum {
  fill: none;
  stroke: var(--ink);
  stroke-width: 3;
}
.sum.behind {
  stroke: var(--fog4);
  stroke-width: 2;
}
.likely {
  fill: none;
  stroke: var(--ink);
  stroke-width: 3;
  stroke-dasharray: 9 6;
}
.band {
  fill: var(--butter);
  opacity: 0.45;
}
.read {
  fill: var(--ink);
}
.void {
  fill: none;
  stroke: var(--ink2);
  stroke-width: 2;
}
.now {
  stroke: var(--ink2);
  stroke-width: 1.5;
}
</style>
