<script setup lang="ts">
/** One sauce on the plate: as a pool, or as the drops it lies in round it. */
import { computed } from 'vue'
import type { Seen } from './dish'

const props = defineProps<{ pool: Seen['pools'][number]; lies: string; well: number; chosen: boolean }>()
defineEmits<{ choose: [] }>()
/** A sauce round the plate lies as drops whose areas together are its own. */
const DROPS = 9
const circles = computed(() => {
  const r = props.pool.radius_mm
  if (props.pool.use !== 'cordon') return [{ x: 0, y: 0, r }]
  return Array.from({ length: DROPS }, (_, n) => {
    const angle = (n / DROPS) * 2 * Math.PI - Math.PI / 2
    return { x: 0.84 * props.well * Math.cos(angle), y: 0.84 * props.well * Math.sin(angle), r: r / Math.sqrt(DROPS) }
  })
})
const marks = computed(() => `url(#sauce-${Number(props.pool.part.slice(7, -1))})`)
</script>

<template>
  <g
    class="pool"
    :class="{ chosen }"
    role="button"
    tabindex="0"
    :aria-label="`${pool.name} ${lies}, ${Math.round(2 * pool.radius_mm)} mm wide`"
    @click="$emit('choose')"
    @keydown.enter="$emit('choose')"
  >
    <template v-for="(one, n) in circles" :key="n">
      <circle class="shape" :cx="one.x" :cy="one.y" :r="one.r" :fill="pool.colour" />
      <circle :cx="one.x" :cy="one.y" :r="one.r" :fill="marks" />
    </template>
  </g>
</template>

<style scoped>
.pool {
  cursor: pointer;
  outline: none;
}
.shape {
  stroke: var(--fog4);
  stroke-width: 0.6;
}
.chosen .shape,
.pool:focus-visible .shape {
  stroke: var(--ink);
  stroke-width: 2;
}
</style>
