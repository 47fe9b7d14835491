<script setup lang="ts">
/** A filled vessel cut through, to scale: what lies over what. Press a part to change it, pull its upper
 * edge (or use the arrow keys on it) to make it thicker. A wide tray is shown from its left wall on. */
import { computed, ref } from 'vue'
import { inPicture } from '@/parts/picture'
import { halfWidth } from '@/parts/pot'
import type { Seen } from './dish'
import Tints from './Tints.vue'
import { mm } from '@/parts/format'

const props = defineProps<{ seen: Seen; chosen: string | null }>()
const emit = defineEmits<{ choose: [part: string]; pull: [part: string, ratio: number] }>()
const vessel = computed(() => props.seen.vessel!)
const rim = computed(() => vessel.value.diameter_cm * 5)
const depth = computed(() => vessel.value.depth_cm * 10)
/** How much of its width is shown, mm: enough that a layer of 4 mm is a layer; a shell is shown whole. */
const round = computed(() => vessel.value.outline.length > 2)
const shown = computed(() => (round.value ? 2 * rim.value : Math.min(2 * rim.value, Math.max(70, 2.1 * depth.value))))
const cut = computed(() => shown.value < 2 * rim.value)
const top = computed(() => Math.max(depth.value, ...props.seen.bands.map((band) => band.high_mm)))
const letter = computed(() => shown.value / 27)
const box = computed(() => {
  const left = -rim.value - 3
  const words = 14.5 * letter.value
  return `${left} ${depth.value - top.value - 6} ${shown.value + words + 6} ${top.value + 12}`
})
const right = computed(() => -rim.value + shown.value)
/** A band as a closed path, y down from the rim, up to where the picture is cut. */
function path(low: number, high: number): string {
  const outline = vessel.value.outline
  const steps = 12
  const heights = Array.from({ length: steps + 1 }, (_, i) => low + ((high - low) * i) / steps)
  const y = (h: number) => depth.value - h
  const left = heights.map((h) => `${-halfWidth(outline, Math.min(h, depth.value))},${y(h)}`)
  const far = heights
    .map((h) => `${Math.min(right.value, halfWidth(outline, Math.min(h, depth.value)))},${y(h)}`)
    .reverse()
  return `M${[...left, ...far].join('L')}Z`
}
const wall = computed(() => {
  const points = vessel.value.outline.map((p) => `${-p.half_mm},${depth.value - p.height_mm}`).reverse()
  const end = cut.value
    ? [`${right.value},${depth.value}`]
    : vessel.value.outline.map((p) => `${p.half_mm},${depth.value - p.height_mm}`)
  return `M${[...points, ...end].join('L')}`
})
const bands = computed(() =>
  props.seen.bands.map((band, i) => ({
    ...band,
    i,
    mm: band.high_mm - band.low_mm,
    sauce: band.part.startsWith('sauces') ? Number(band.part.slice(7, -1)) : null,
    path: path(band.low_mm, band.high_mm),
    width: Math.min(right.value, halfWidth(vessel.value.outline, Math.min(band.high_mm, depth.value))),
  })),
)
/** Words beside the bands, kept a line apart. */
const words = computed(() => {
  let last = -Infinity
  const placed = bands.value.map((band) => {
    const want = (band.low_mm + band.high_mm) / 2
    last = Math.max(want, last + 1.25 * letter.value)
    return { ...band, at: last }
  })
  const over = placed.length ? placed.at(-1)!.at - top.value : 0
  return placed.map((one) => ({ ...one, y: depth.value - (over > 0 ? one.at - over : one.at) }))
})

const svg = ref<SVGSVGElement | null>(null)
let held: { part: string; low: number; high: number; from: number } | null = null
function heightAt(event: PointerEvent): number {
  return depth.value - inPicture(svg.value!, event).y
}
function grab(event: PointerEvent, band: { part: string; low_mm: number; high_mm: number }): void {
  ;(event.target as Element).setPointerCapture(event.pointerId)
  held = { part: band.part, low: band.low_mm, high: band.high_mm, from: heightAt(event) }
  emit('choose', band.part)
}
function letGo(event: PointerEvent): void {
  if (!held) return
  const { part, low, high, from } = held
  held = null
  const now = Math.max(low + 0.3, high + heightAt(event) - from)
  if (Math.abs(now - high) > 0.2) emit('pull', part, (now - low) / (high - low))
}
function byKey(event: KeyboardEvent, band: { part: string; mm: number }): void {
  const step = { ArrowUp: 0.5, ArrowDown: -0.5 }[event.key]
  if (!step || band.mm + step <= 0) return
  event.preventDefault()
  emit('pull', band.part, (band.mm + step) / band.mm)
}
</script>

<template>
  <svg ref="svg" :viewBox="box" role="group" :aria-label="`${vessel.name} cut through`">
    <Tints :colours="seen.bands.map((band) => band.colour)" :size="letter" />
    <g
      v-for="band in bands"
      :key="band.i"
      class="band"
      :class="{ chosen: chosen === band.part }"
      role="button"
      tabindex="0"
      :aria-label="`${band.name}, ${mm(band.mm, 1)}`"
      @click="emit('choose', band.part)"
      @keydown.enter="emit('choose', band.part)"
    >
      <path :d="band.path" :fill="band.colour" />
      <path v-if="band.kind !== 'topping'" :d="band.path" :fill="`url(#${band.kind}-${band.sauce ?? 0})`" />
      <path v-else :d="band.path" fill="url(#topping)" />
    </g>
    <path :d="wall" class="wall" />
    <path
      v-if="cut"
      class="break"
      :d="`M${right},${depth - top - 2} l3,${top / 4} l-6,${top / 4} l6,${top / 4} l-3,${top / 4 + 4}`"
    />
    <line
      v-for="band in bands"
      :key="`edge-${band.i}`"
      class="edge"
      role="slider"
      tabindex="0"
      :aria-label="`How thick: ${band.name}`"
      aria-valuemin="0"
      :aria-valuenow="Number(band.mm.toFixed(1))"
      :aria-valuetext="mm(band.mm, 1)"
      :x1="-halfWidth(vessel.outline, Math.min(band.high_mm, depth))"
      :x2="band.width"
      :y1="depth - band.high_mm"
      :y2="depth - band.high_mm"
      @pointerdown="grab($event, band)"
      @pointerup="letGo"
      @keydown="byKey($event, band)"
    />
    <g v-for="band in words" :key="`word-${band.i}`" class="words" :class="{ chosen: chosen === band.part }">
      <line
        :x1="band.width"
        :y1="depth - (band.low_mm + band.high_mm) / 2"
        :x2="right + letter"
        :y2="band.y"
        class="lead"
      />
      <text :x="right + 1.3 * letter" :y="band.y + 0.32 * letter" :font-size="letter">
        <tspan class="mm">{{ mm(band.mm, band.mm < 10 ? 1 : 0) }}</tspan>
        {{ band.name.length > 22 ? `${band.name.slice(0, 21)}…` : band.name }}
      </text>
    </g>
    <line
      v-if="seen.fill_mm"
      class="fill"
      :x1="-rim - 3"
      :x2="-rim + 5"
      :y1="depth - seen.fill_mm"
      :y2="depth - seen.fill_mm"
    />
  </svg>
</template>

<style scoped>
svg {
  display: block;
  width: 100%;
  max-height: 52vh;
  touch-action: none;
}
.band {
  cursor: pointer;
  outline: none;
}
.band.chosen path:first-child,
.band:focus-visible path:first-child {
  stroke: var(--ink);
  stroke-width: 0.8;
}
.wall {
  fill: none;
  stroke: var(--steel-edge);
  stroke-width: 2.4;
  stroke-linejoin: round;
}
.break {
  fill: none;
  stroke: var(--fog1);
  stroke-width: 3;
}
.edge {
  stroke: transparent;
  stroke-width: 5;
  cursor: ns-resize;
  outline: none;
}
.edge:hover,
.edge:focus-visible {
  stroke: var(--russet);
  stroke-width: 1.2;
}
.lead {
  stroke: var(--fog4);
  stroke-width: 0.35;
}
text {
  font-family: var(--text);
  fill: var(--ink);
}
.mm {
  font-weight: 800;
}
.words.chosen text {
  font-weight: 800;
}
.fill {
  stroke: var(--russet);
  stroke-width: 1;
}
</style>
