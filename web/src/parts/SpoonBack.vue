<script setup lang="ts">
/** The back of a spoon whose film, drip and drawn line follow the viscosity. */
import { computed } from 'vue'
import { spoonPicture } from './spoon'

const props = defineProps<{ viscosity: number | null; filmMm: number | null; looks?: string }>()

const look = computed(() => (props.viscosity && props.filmMm ? spoonPicture(props.viscosity, props.filmMm) : null))
// The bowl of the spoon hangs point down, an egg 62 wide about (50, 66).
const bowl = 'M50 22 C70 22 81 44 81 66 C81 92 67 110 50 110 C33 110 19 92 19 66 C19 44 30 22 50 22Z'
const film = computed(() => {
  const { film: f = 0, drip: d = 0, dripWidth: w = 3, peak: p = 0 } = look.value ?? {}
  const foot = 110 + 0.7 * f
  const [left, right, top] = [19 - f, 81 + f, 50 - 0.6 * f]
  return (
    `M${left + 2} ${top} C${left} 58 ${left} 66 ${left} 70 C${left} ${foot - 14} 34 ${foot} ${46 - w} ${foot}` +
    ` C${47 - w / 2} ${foot} ${47.5 - w / 2} ${foot + d} 49 ${foot + d} C${50.5 + w / 2} ${foot + d} ${51 + w / 2} ${foot} ${54 + w} ${foot}` +
    ` C66 ${foot} ${right} ${foot - 14} ${right} 70 C${right} 66 ${right} 58 ${right - 2} ${top}` +
    ` C74 ${top - 5} 66 ${top - 6} 60 ${top - 6 - p / 3} L52 ${top - 8 - p} C46 ${top - 8} 34 ${top - 7} ${left + 2} ${top}Z`
  )
})
</script>

<template>
  <svg viewBox="0 0 100 150" role="img" :aria-label="`Back of the spoon: ${looks ?? ''}`">
    <path d="M46.5 0 h7 l2 26 h-11 z" fill="var(--steel-deep)" />
    <path :d="bowl" fill="var(--steel)" stroke="var(--steel-edge)" stroke-width="1" />
    <path
      d="M31 44 C26 56 26 78 34 92"
      fill="none"
      stroke="var(--steel-shine)"
      stroke-width="4"
      stroke-linecap="round"
    />
    <g v-if="look">
      <path
        class="film"
        :d="film"
        fill="var(--sauce)"
        :fill-opacity="0.25 + 0.75 * look.cover"
        stroke="var(--sauce-edge)"
        :stroke-width="0.8 + look.film * 0.1"
      />
      <path
        d="M28 60 C27 72 30 86 36 94"
        fill="none"
        stroke="var(--sauce-shine)"
        :stroke-width="1 + look.film * 0.4"
        stroke-linecap="round"
        opacity="0.8"
      />
      <path
        class="line"
        :d="`M${50 - 20 * look.open} 74 H${50 + 20 * look.open}`"
        stroke="var(--steel-edge)"
        :stroke-width="look.line"
        :stroke-opacity="look.open"
        stroke-linecap="round"
      />
    </g>
  </svg>
</template>

<style scoped>
svg {
  display: block;
  width: 100%;
  height: 100%;
}
</style>
