<script setup lang="ts">
/** Records behind what is learned, in the order they were made: each with its edges, the usual as a line, what
 * they come to as a band. */
import { computed } from 'vue'
import type { Schemas } from '@/api/client'
import { decimal, fixed } from '@/parts/ways'

const props = defineProps<{ taught: Schemas['Taught'] }>()
const size = { width: 320, height: 130, left: 44, right: 8, top: 8, foot: 20 }
const reach = computed(() => {
  const all = [props.taught.low, props.taught.high, ...props.taught.seen.map((one) => one.factor)]
  const far = Math.max(...all.map((one) => Math.abs(Math.log(one))), Math.log(1.3))
  return Math.min(far * 1.15, Math.log(6))
})
const y = (factor: number) => {
  const share = Math.max(-1, Math.min(1, Math.log(factor) / reach.value))
  return size.top + (0.5 - 0.5 * share) * (size.height - size.top - size.foot)
}
const x = (n: number) => {
  const many = Math.max(1, props.taught.seen.length)
  return size.left + ((n + 0.5) / many) * (size.width - size.left - size.right)
}
const marks = computed(() =>
  [0.5, 0.7, 1, 1.4, 2, 3].filter((one) => Math.abs(Math.log(one)) <= reach.value).map((one) => ({ one, y: y(one) })),
)
const words = computed(
  () =>
    `${props.taught.seen.length} records, as a factor of the usual: together ${fixed(props.taught.factor, 2)}, ` +
    `between ${fixed(props.taught.low, 2)} and ${fixed(props.taught.high, 2)}`,
)
</script>

<template>
  <svg :viewBox="`0 0 ${size.width} ${size.height}`" role="img" :aria-label="words">
    <rect
      class="band"
      :x="size.left"
      :width="size.width - size.left - size.right"
      :y="y(taught.high)"
      :height="Math.max(2, y(taught.low) - y(taught.high))"
    />
    <g v-for="mark in marks" :key="mark.one">
      <line
        :class="{ usual: mark.one === 1 }"
        class="mark"
        :x1="size.left"
        :x2="size.width - size.right"
        :y1="mark.y"
        :y2="mark.y"
      />
      <text :x="size.left - 6" :y="mark.y + 4" text-anchor="end">
        {{ mark.one === 1 ? 'usual' : `× ${decimal(String(mark.one))}` }}
      </text>
    </g>
    <line class="found" :x1="size.left" :x2="size.width - size.right" :y1="y(taught.factor)" :y2="y(taught.factor)" />
    <g v-for="(one, n) in taught.seen" :key="n" :class="{ odd: one.odd }">
      <line class="edge" :x1="x(n)" :x2="x(n)" :y1="y(one.low)" :y2="y(one.high)" />
      <circle v-if="!one.odd" :cx="x(n)" :cy="y(one.factor)" r="4" />
      <path v-else :d="`M${x(n) - 4},${y(one.factor) - 4}l8,8m0,-8l-8,8`" />
    </g>
    <text :x="size.left" :y="size.height - 4">oldest</text>
    <text :x="size.width - size.right" :y="size.height - 4" text-anchor="end">newest</text>
  </svg>
</template>

<style scoped>
svg {
  width: 100%;
  max-width: 420px;
  font-size: 11px;
}
text {
  fill: var(--ink2);
}
.band {
  fill: var(--butter-wash);
}
.mark {
  stroke: var(--fog3);
}
.mark.usual {
  stroke: var(--ink2);
  stroke-dasharray: 4 3;
}
.found {
  stroke: var(--russet);
  stroke-width: 2;
}
.edge {
  stroke: var(--ink2);
  opacity: 0.45;
}
circle {
  fill: var(--ink);
}
.odd path {
  stroke: var(--danger);
  stroke-width: 2;
}
</style>
