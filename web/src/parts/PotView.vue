<script setup lang="ts">
/** Side view of the chosen pan to scale: level with its dip mark, what it is made of in layers. */
import { computed } from 'vue'
import type { Schemas } from '@/api/client'
import { millilitres } from './format'
import { halfWidth, slice } from './pot'

const props = defineProps<{
  pan: Schemas['SideView']
  state: Schemas['Figures'] | null
  before?: number | null
}>()

const rim = computed(() => props.pan.diameter_cm * 5)
const depth = computed(() => props.pan.depth_cm * 10)
const level = computed(() => Math.min(props.state?.level_mm ?? 0, depth.value))

/** Shares of the level, from the bottom up: what makes it thick, then water, fat on top. */
const layers = computed(() => {
  const state = props.state
  if (!state || !level.value) return []
  const all = state.total_ml ?? state.volume_ml
  const pieces = all > 0 ? (100 * (all - state.volume_ml)) / all : 0
  const sauce = 1 - pieces / 100
  const parts = [
    { name: 'pieces', share: pieces, fill: 'var(--in-pieces)' },
    { name: 'flour', share: state.flour_pct * sauce, fill: 'var(--in-flour)' },
    {
      name: 'other solids',
      share: sauce * Math.max(0, 100 - state.water_pct - state.fat_pct - state.flour_pct - state.alcohol_pct),
      fill: 'var(--in-solids)',
    },
    { name: 'water', share: sauce * (state.water_pct + state.alcohol_pct), fill: 'var(--in-water)' },
    { name: 'fat', share: sauce * state.fat_pct, fill: 'var(--in-fat)' },
  ].filter((part) => part.share > 0.05)
  const total = parts.reduce((sum, part) => sum + part.share, 0)
  let at = 0
  return parts.map((part) => {
    const from = at
    at += (part.share / total) * level.value
    return { ...part, path: slice(props.pan.outline, from, at) }
  })
})
/** Text is sized by the width of the picture, so that a wide pan is not captioned in specks. */
const letter = computed(() => Math.max(2 * rim.value, 1.5 * depth.value) / 14)
const box = computed(() => {
  const left = rim.value + 4.6 * letter.value
  const right = rim.value + 3.4 * letter.value
  return `${-left} ${-letter.value} ${left + right} ${depth.value + 3.2 * letter.value}`
})
const dip = computed(() => depth.value - level.value)
const wasDip = computed(() => (props.before ? depth.value - Math.min(props.before, depth.value) : null))
</script>

<template>
  <svg
    :viewBox="box"
    preserveAspectRatio="xMidYMax meet"
    role="img"
    :aria-label="`${pan.name}: ${Math.round(state?.level_mm ?? 0)} mm deep`"
  >
    <path v-for="layer in layers" :key="layer.name" class="layer" :d="layer.path" :fill="layer.fill">
      <title>{{ layer.name }} {{ Math.round(layer.share) }} %</title>
    </path>
    <path
      :d="slice(pan.outline, 0, depth)"
      fill="none"
      stroke="var(--ink2)"
      stroke-width="4"
      stroke-linejoin="round"
      vector-effect="non-scaling-stroke"
    />
    <line :x1="-rim - 3" :x2="-rim + 6" y1="0" y2="0" stroke="var(--ink2)" stroke-width="5" />
    <line
      :x1="rim - 6"
      :x2="rim + 2.6 * letter"
      y1="2"
      y2="2"
      stroke="var(--ink2)"
      stroke-width="7"
      stroke-linecap="round"
    />
    <g v-if="state && level > 0">
      <line
        class="level"
        :x1="-rim - 0.6 * letter"
        :x2="halfWidth(pan.outline, level)"
        :y1="dip"
        :y2="dip"
        stroke="var(--russet)"
        stroke-width="2.5"
      />
      <line
        v-if="wasDip !== null && Math.abs(wasDip - dip) > 1"
        :x1="-rim - 0.6 * letter"
        :x2="-halfWidth(pan.outline, before!)"
        :y1="wasDip"
        :y2="wasDip"
        stroke="var(--fog4)"
        stroke-width="2.5"
        stroke-dasharray="4 3"
      />
      <text :x="-rim - 0.9 * letter" :y="Math.min(depth, dip + 0.35 * letter)" :font-size="letter" text-anchor="end">
        {{ Math.round(state.level_mm) }} mm
      </text>
    </g>
    <text class="under" x="0" :y="depth + 1.7 * letter" :font-size="0.95 * letter" text-anchor="middle">
      {{ pan.name }}
      <template v-if="state">· {{ millilitres(state.total_ml ?? state.volume_ml) }}</template>
    </text>
  </svg>
</template>

<style scoped>
svg {
  display: block;
  width: 100%;
  height: 100%;
}
text {
  font-family: var(--text);
  font-weight: 700;
  fill: var(--ink);
}
.under {
  font-weight: 600;
  fill: var(--ink2);
}
</style>
