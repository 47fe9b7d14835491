<script setup lang="ts">
/** The back of a spoon whose film, drip and drawn line follow the viscosity. */
import { computed } from 'vue'
import { spoonPicture } from './spoon'

const props = defineProps<{ viscosity: number | null; filmMm: number | null; looks?: string }>()

const look = computed(() => (props.viscosity && props.filmMm ? spoonPicture(props.viscosity, props.filmMm) : null))
// The bowl of the spoon hangs point down, an egg 62 wide about (50, 66).
const bowl = 'M50 22 C70 22 81 44 81 66 C81 92 67 110 50 110 C33 110 19 92 19 66 C19 44 30 22 50 22Z'
const film = computed(() => {
  const f = (look.value?.film ?? 0) * 0.3
  const d = look.value?.drip ?? 0
  const foot = 110 + 1.6 * f
  return (
    `M${20 - f} 50 C${18 - f} ${58 - f} ${18 - f} 66 ${18.5 - f} 70 C${20 - f} 94 34 ${foot} 42 ${foot}` +
    ` C45 ${foot} 45.5 ${foot + d} 48.5 ${foot + d} C51.5 ${foot + d} 52 ${foot} 56 ${foot}` +
    ` C66 ${foot} ${80 + f} 94 ${81.5 + f} 70 C${82 + f} 66 ${82 + f} ${58 - f} ${80 + f} 50` +
    ` C66 ${43 - f} 34 ${43 - f} ${20 - f} 50Z`
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
        :stroke-width="0.6 + look.film * 0.12"
      />
      <path
        d="M28 60 C27 72 30 86 36 94"
        fill="none"
        stroke="var(--sauce-shine)"
        :stroke-width="1 + look.film * 0.3"
        stroke-linecap="round"
        opacity="0.8"
      />
      <path
        class="line"
        d="M40 74 H70"
        stroke="var(--steel-edge)"
        :stroke-width="look.line"
        :stroke-opacity="0.35 + 0.6 * Math.min(1, look.line / 10)"
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
