<script setup lang="ts">
/** The thickness ribbon: predicted mark with its soft edge, a ring for how thick it is as it is, the target's notch, logged ticks. */
import { computed, useId } from 'vue'
import { useSession } from '@/shell/session'
import { along, bands } from './ribbon'

const props = defineProps<{
  viscosity?: number | null
  low?: number | null
  high?: number | null
  now?: number | null
  target?: string | null
  ticks?: number[]
  slim?: boolean
  /** Read from afar: what is wanted, large; the rest is its place on the band. */
  far?: boolean
}>()

const session = useSession()
const id = useId()
const width = 360
const made = computed(() => bands(session.grades))
const x = (viscosity: number) => along(viscosity) * width
const top = computed(() => (props.slim ? 4 : 16))
const height = computed(() => (props.slim ? 14 : 26))
const notch = computed(() => {
  const band = made.value.find((b) => b.key === props.target)
  return band ? { x: band.from * width, width: (band.to - band.from) * width } : null
})
const middle = (band: { from: number; to: number }) => ((band.from + band.to) / 2) * width
const named = computed(() => made.value.slice(1).filter((band) => !props.far || band.key === props.target))
const gradeAt = (viscosity: number) =>
  [...session.grades].reverse().find((g) => viscosity >= g.low_pa_s)?.name ?? 'liquid'
const said = computed(() => {
  const parts: string[] = []
  if (props.viscosity) parts.push(`predicted ${gradeAt(props.viscosity)}`)
  if (props.now) parts.push(`as it is ${gradeAt(props.now)}`)
  if (props.target) parts.push(`target ${session.gradeName(props.target)}`)
  return parts.join(', ') || 'no thickness yet'
})
</script>

<template>
  <svg class="ribbon" :viewBox="`0 0 ${width} ${slim ? 22 : 66}`" role="img" :aria-label="`Thickness: ${said}`">
    <defs>
      <linearGradient :id="id" x1="0" x2="1" y1="0" y2="0">
        <stop offset="0" stop-color="var(--russet)" stop-opacity="0" />
        <stop offset="0.5" stop-color="var(--russet)" stop-opacity="0.55" />
        <stop offset="1" stop-color="var(--russet)" stop-opacity="0" />
      </linearGradient>
    </defs>
    <rect
      v-for="(band, i) in made"
      :key="band.key"
      :x="band.from * width"
      :y="top"
      :width="Math.max(0, (band.to - band.from) * width - 1.5)"
      :height="height"
      :fill="band.key === target ? 'var(--butter-wash)' : i % 2 ? 'var(--fog2)' : 'var(--fog2-deep)'"
      rx="2"
    />
    <g v-if="notch" class="notch">
      <path
        :d="`M${notch.x},${top + height + 5} v-4 h${notch.width - 1.5} v4`"
        fill="none"
        stroke="var(--ink)"
        stroke-width="2"
      />
    </g>
    <rect
      v-if="low && high"
      class="edge"
      :x="x(low)"
      :y="top"
      :width="x(high) - x(low)"
      :height="height"
      :fill="`url(#${id})`"
    />
    <line
      v-for="(tick, i) in ticks ?? []"
      :key="i"
      class="tick"
      :x1="x(tick)"
      :x2="x(tick)"
      :y1="top - 4"
      :y2="top + height + 4"
      stroke="var(--ink)"
      stroke-width="3"
    />
    <circle
      v-if="now"
      class="as-it-is"
      :cx="x(now)"
      :cy="top + height / 2"
      :r="slim ? 4.5 : 7"
      fill="var(--paper, #fff)"
      stroke="var(--russet)"
      stroke-width="3"
    />
    <path
      v-if="viscosity"
      class="mark"
      :transform="`translate(${x(viscosity)} 0)`"
      :d="
        slim ? `M-5,0 h10 l-5,7 z M-1.5,5 h3 v${height} h-3 z` : `M-8,2 h16 l-8,13 z M-1.5,12 h3 v${height + 4} h-3 z`
      "
      fill="var(--russet)"
    />
    <template v-if="!slim">
      <text
        v-for="band in named"
        :key="band.key"
        :x="far ? Math.min(width - 70, Math.max(70, middle(band))) : middle(band)"
        :y="far ? 64 : 61"
        text-anchor="middle"
        :class="{ wanted: band.key === target, far }"
      >
        {{ far ? `${band.name} wanted` : band.name }}
      </text>
    </template>
  </svg>
</template>

<style scoped>
.ribbon {
  display: block;
  width: 100%;
  height: auto;
  overflow: visible;
}
text {
  font: 600 11.5px var(--text);
  fill: var(--ink2);
}
text.far {
  font-size: 22px;
}
text.wanted {
  fill: var(--ink);
  font-weight: 800;
}
.mark,
.edge {
  transition:
    transform 120ms ease-out,
    x 120ms ease-out;
}
</style>
