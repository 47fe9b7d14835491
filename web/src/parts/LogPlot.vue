<script setup lang="ts">
/** Thickness on the grades' logarithmic scale against whatever runs along the foot. */
import { computed } from 'vue'
import { useSession } from '@/shell/session'
import { along, bands } from './ribbon'

export interface Point {
  x: number
  viscosity: number | null
}
const props = defineProps<{
  points: Point[]
  pinned?: Point[] | null
  low: number
  high: number
  ticks: { x: number; text: string }[]
  /** A stretch of the foot with a word over it: where a sauce has set. */
  mark?: { from: number; to: number; text: string } | null
  target?: string | null
  bars?: { x: number; share: number; text: string }[]
  label: string
}>()
const session = useSession()
const size = { width: 460, height: 176, left: 66, right: 8, top: 6, foot: 26 }
const x = (value: number) =>
  size.left + ((value - props.low) / Math.max(1e-9, props.high - props.low)) * (size.width - size.left - size.right)
const depth = size.height - size.top - size.foot
const y = (viscosity: number) => size.top + (1 - along(viscosity)) * depth
const made = computed(() => bands(session.grades))
/** Unbroken stretches: a sauce that cannot be told leaves a gap. */
function path(points: Point[]): string {
  let pen = 'M'
  let drawn = ''
  for (const point of points) {
    if (point.viscosity === null) pen = 'M'
    else {
      drawn += `${pen}${x(point.x).toFixed(1)},${y(point.viscosity).toFixed(1)}`
      pen = 'L'
    }
  }
  return drawn
}
</script>

<template>
  <svg :viewBox="`0 0 ${size.width} ${size.height}`" role="img" :aria-label="label">
    <g v-for="(band, i) in made" :key="band.key">
      <rect
        :x="size.left"
        :width="size.width - size.left - size.right"
        :y="size.top + (1 - band.to) * depth"
        :height="(band.to - band.from) * depth"
        :fill="band.key === target ? 'var(--butter-wash)' : i % 2 ? 'var(--fog1)' : 'var(--fog0)'"
      />
      <text
        v-if="band.name"
        :x="size.left - 6"
        :y="size.top + (1 - (band.from + band.to) / 2) * depth + 4"
        text-anchor="end"
      >
        {{ band.name }}
      </text>
    </g>
    <g v-for="bar in bars ?? []" :key="bar.x">
      <rect
        :x="x(bar.x) - 9"
        :y="size.top + (1 - bar.share) * depth"
        width="18"
        :height="bar.share * depth"
        fill="var(--fog4)"
        fill-opacity="0.28"
      />
      <text
        :x="x(bar.x)"
        :y="Math.max(size.top + 11, size.top + (1 - bar.share) * depth - 3)"
        text-anchor="middle"
        class="bar"
      >
        {{ bar.text }}
      </text>
    </g>
    <g v-if="mark">
      <rect
        :x="x(mark.from)"
        :y="size.top"
        :width="x(mark.to) - x(mark.from)"
        :height="depth"
        fill="var(--ink2)"
        fill-opacity="0.13"
      />
      <text :x="(x(mark.from) + x(mark.to)) / 2" :y="size.top + depth / 2" text-anchor="middle" class="set">
        {{ mark.text }}
      </text>
    </g>
    <path v-if="pinned" :d="path(pinned)" class="pinned" />
    <path :d="path(points)" class="line" />
    <circle
      v-for="point in points.filter((p) => p.viscosity !== null && bars)"
      :key="point.x"
      :cx="x(point.x)"
      :cy="y(point.viscosity!)"
      r="4"
      fill="var(--russet)"
    />
    <text v-for="tick in ticks" :key="tick.x" :x="x(tick.x)" :y="size.height - 8" text-anchor="middle">
      {{ tick.text }}
    </text>
  </svg>
</template>

<style scoped>
svg {
  display: block;
  width: 100%;
  height: auto;
}
text {
  font: 600 12px var(--text);
  fill: var(--ink2);
}
.bar {
  font-size: 10.5px;
}
.set {
  font-weight: 800;
  fill: var(--ink);
}
.line,
.pinned {
  fill: none;
  stroke: var(--russet);
  stroke-width: 3;
  stroke-linejoin: round;
}
.pinned {
  stroke: var(--ink);
  stroke-width: 2;
  stroke-dasharray: 5 4;
}
</style>
