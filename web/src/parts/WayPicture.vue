<script setup lang="ts">
/**
 * A pot that boils down: where it stands now, where it stops and what it passes, and the way there in
 * time, all at one height. Pressing the pot says where the level stands.
 */
import { useElementSize } from '@vueuse/core'
import { computed, ref } from 'vue'
import type { Schemas } from '@/api/client'
import { scaleReads } from './format'

const props = defineProps<{ watched: Schemas['Watched']; presses?: boolean }>()
const emit = defineEmits<{ level: [mm: number] }>()
const frame = ref<HTMLElement>()
const { width, height } = useElementSize(frame)
const w = computed(() => Math.max(300, width.value))
const h = computed(() => Math.max(200, height.value))
const BOTTOM = 26
const TOP = 14

const highest = computed(() => {
  const track = props.watched.track.map((point) => point.high_mm)
  return 1.12 * Math.max(props.watched.level_mm.high, ...track, 1)
})
const y = (mm: number) => TOP + (1 - mm / highest.value) * (h.value - TOP - BOTTOM)
const pot = computed(() => ({ left: 10, right: Math.max(110, Math.min(0.34 * w.value, 300)) }))

const from = computed(() => props.watched.track[0]?.at_min ?? 0)
const until = computed(() => {
  const left = props.watched.minutes_left
  const end = left ? props.watched.at_min + left.high : (props.watched.track.at(-1)?.at_min ?? 1)
  return Math.max(from.value + 1, Math.min(end, props.watched.at_min + 3 * (left?.value ?? 10) + 2))
})
const right = computed(() => w.value - 150)
const x = (minute: number) =>
  pot.value.right + 14 + ((minute - from.value) / (until.value - from.value)) * (right.value - pot.value.right - 14)
const inside = computed(() => props.watched.track.filter((point) => point.at_min <= until.value))
const line = (points: Schemas['TrackPoint'][]) =>
  points.map((p, i) => `${i ? 'L' : 'M'}${x(p.at_min).toFixed(1)},${y(p.level_mm).toFixed(1)}`).join('')
const past = computed(() => line(inside.value.filter((p) => p.at_min <= props.watched.at_min + 0.01)))
const ahead = computed(() => line(inside.value.filter((p) => p.at_min >= props.watched.at_min - 0.01)))
const band = computed(() => {
  const points = inside.value
  const there = points.map((p) => `${x(p.at_min).toFixed(1)},${y(p.high_mm).toFixed(1)}`)
  const back = [...points].reverse().map((p) => `${x(p.at_min).toFixed(1)},${y(p.low_mm).toFixed(1)}`)
  return points.length > 1 ? `M${[...there, ...back].join('L')}Z` : ''
})

/** Lines with their words, none on top of another: the goal keeps its place. */
const lines = computed(() => {
  const goal = props.watched.goal
  const all = props.watched.passing.map((one) => ({
    key: one.key,
    mm: one.level_mm,
    words: `${one.name} ${one.scale_g === null ? `${Math.round(one.level_mm)} mm` : scaleReads(one.scale_g)}`,
    goal: false,
  }))
  if (goal) {
    const reads = goal.scale_g === null ? '' : ` ${scaleReads(goal.scale_g)}`
    all.push({ key: 'goal', mm: goal.level_mm, words: `stop${reads}`, goal: true })
  }
  const placed: number[] = []
  return all
    .sort((a, b) => Number(b.goal) - Number(a.goal) || b.mm - a.mm)
    .map((one) => {
      let at = y(one.mm)
      for (let tries = 0; tries < 12 && placed.some((other) => Math.abs(other - at) < 19); tries++) {
        const near = placed.find((other) => Math.abs(other - at) < 19)!
        at = at >= near && one.key !== 'goal' ? near + 19 : near - 19
      }
      placed.push(at)
      return { ...one, y: y(one.mm), text: at }
    })
})

/** The figure stands in the sauce under its level, where there is room, else above it. */
const level = computed(() => {
  const at = y(props.watched.level_mm.value)
  return y(0) - at > 34 ? at + 26 : y(props.watched.level_mm.high) - 8
})

const pressed = ref<number | null>(null)
function heightOf(event: PointerEvent): number {
  const box = (event.currentTarget as SVGElement).getBoundingClientRect()
  const at = event.clientY - box.top
  const mm = highest.value * (1 - (at - TOP) / (h.value - TOP - BOTTOM))
  return Math.round(2 * Math.min(highest.value, Math.max(0, mm))) / 2
}
function down(event: PointerEvent): void {
  if (!props.presses) return
  const box = (event.currentTarget as SVGElement).getBoundingClientRect()
  if (event.clientX - box.left > pot.value.right + 8) return
  pressed.value = heightOf(event)
}
function move(event: PointerEvent): void {
  if (pressed.value !== null) pressed.value = heightOf(event)
}
function up(): void {
  if (pressed.value !== null && pressed.value > 0) emit('level', pressed.value)
  pressed.value = null
}
function key(event: KeyboardEvent): void {
  const step = { ArrowUp: 1, ArrowDown: -1, PageUp: 5, PageDown: -5 }[event.key]
  if (step) pressed.value = Math.max(0.5, (pressed.value ?? Math.round(props.watched.level_mm.value)) + step)
  else if (event.key === 'Enter' && pressed.value !== null) up()
  else if (event.key === 'Escape') pressed.value = null
  else return
  event.preventDefault()
  event.stopPropagation()
}
</script>

<template>
  <div ref="frame" class="way-picture">
    <svg
      :viewBox="`0 0 ${w} ${h}`"
      :width="w"
      :height="h"
      :class="{ presses }"
      :role="presses ? 'slider' : 'img'"
      :tabindex="presses ? 0 : undefined"
      aria-label="Where the level stands"
      :aria-valuenow="Math.round(pressed ?? watched.level_mm.value)"
      aria-valuemin="0"
      :aria-valuemax="Math.round(highest)"
      :aria-valuetext="`${Math.round(pressed ?? watched.level_mm.value)} mm deep`"
      @pointerdown="down"
      @pointermove="move"
      @pointerup="up"
      @pointerleave="pressed = null"
      @keydown="key"
    >
      <rect
        :x="pot.left + 3"
        :y="y(watched.level_mm.high)"
        :width="pot.right - pot.left - 6"
        :height="y(0) - y(watched.level_mm.high)"
        fill="var(--butter-wash)"
      />
      <rect
        :x="pot.left + 3"
        :y="y(watched.level_mm.value)"
        :width="pot.right - pot.left - 6"
        :height="y(0) - y(watched.level_mm.value)"
        fill="var(--butter)"
      />
      <path class="wall" :d="`M${pot.left},${TOP / 2}V${y(0)}H${pot.right}V${TOP / 2}`" />
      <path :d="band" class="band" />
      <g v-for="one in lines" :key="one.key" :class="['mark', one.key]">
        <path :d="`M${pot.left},${one.y}H${right}L${right + 10},${one.text}`" />
        <text :x="right + 14" :y="one.text + 5">{{ one.words }}</text>
      </g>
      <path :d="past" class="past" />
      <path :d="ahead" class="ahead" />
      <line class="now" :x1="x(watched.at_min)" :x2="x(watched.at_min)" :y1="TOP" :y2="y(0)" />
      <circle :cx="x(watched.at_min)" :cy="y(watched.level_mm.value)" r="7" />
      <text :x="x(watched.at_min)" :y="h - 6" text-anchor="middle">now</text>
      <text v-if="watched.minutes_left && right - x(watched.at_min) > 80" :x="right" :y="h - 6" text-anchor="end">
        +{{ Math.round(until - watched.at_min) }} min
      </text>
      <g v-if="pressed !== null" class="pressed">
        <line :x1="pot.left" :x2="pot.right" :y1="y(pressed)" :y2="y(pressed)" />
        <text :x="(pot.left + pot.right) / 2" :y="Math.max(24, y(pressed) - 8)" text-anchor="middle">
          {{ pressed }} mm
        </text>
      </g>
      <text v-else class="level" :x="(pot.left + pot.right) / 2" :y="level" text-anchor="middle">
        {{ Math.round(watched.level_mm.value) }} mm
      </text>
    </svg>
  </div>
</template>

<style scoped>
.way-picture {
  position: relative;
  min-height: 220px;
  overflow: hidden;
}
svg {
  position: absolute;
  inset: 0;
  touch-action: none;
}
.presses {
  cursor: row-resize;
}
text {
  font: 600 18px var(--text);
  fill: var(--ink);
}
.wall {
  fill: none;
  stroke: var(--ink2);
  stroke-width: 5;
  stroke-linejoin: round;
}
.band {
  fill: var(--fog3);
  opacity: 0.8;
}
.past,
.ahead {
  fill: none;
  stroke: var(--ink);
  stroke-width: 3.5;
}
.ahead {
  stroke-dasharray: 7 6;
}
.now {
  stroke: var(--ink2);
}
circle {
  fill: var(--ink);
}
.mark path {
  fill: none;
  stroke: var(--ink2);
  stroke-dasharray: 2 5;
}
.goal path {
  stroke: var(--russet);
  stroke-width: 3;
  stroke-dasharray: none;
}
.goal text,
.oily text,
.rich text {
  fill: var(--russet);
  font-weight: 750;
}
.pressed line {
  stroke: var(--russet);
  stroke-width: 4;
}
.pressed text,
.level {
  font: 750 22px var(--text);
}
</style>
