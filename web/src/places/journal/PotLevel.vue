<script setup lang="ts">
/** A pan to scale with a level in it, and where it stood before. */
import { computed } from 'vue'
import type { Schemas } from '@/api/client'
import { halfWidth, slice } from '@/parts/pot'

const props = defineProps<{ pan: Schemas['SideView']; level: number; before: number; blind?: boolean }>()
const depth = computed(() => props.pan.depth_cm * 10)
const rim = computed(() => props.pan.diameter_cm * 5)
const letter = computed(() => Math.max(2 * rim.value, 1.5 * depth.value) / 15)
const box = computed(
  () =>
    `${-rim.value - 5 * letter.value} ${-letter.value} ${2 * rim.value + 6 * letter.value} ${depth.value + 2.5 * letter.value}`,
)
const y = (mm: number) => depth.value - Math.min(mm, depth.value)
</script>

<template>
  <svg :viewBox="box" role="img" :aria-label="`${pan.name}: ${Math.round(level)} mm, before ${Math.round(before)} mm`">
    <path :d="slice(pan.outline, 0, level)" fill="var(--sauce)" />
    <path
      :d="slice(pan.outline, 0, depth)"
      fill="none"
      stroke="var(--ink2)"
      stroke-width="4"
      stroke-linejoin="round"
      vector-effect="non-scaling-stroke"
    />
    <g v-for="mark in blind ? [before] : [before, level]" :key="mark">
      <line
        :x1="-rim - 0.5 * letter"
        :x2="halfWidth(pan.outline, mark)"
        :y1="y(mark)"
        :y2="y(mark)"
        :stroke="mark === level ? 'var(--russet)' : 'var(--fog4)'"
        stroke-width="2.5"
        :stroke-dasharray="mark === level ? undefined : '4 3'"
      />
      <text :x="-rim - 0.8 * letter" :y="y(mark) + 0.35 * letter" :font-size="letter" text-anchor="end">
        {{ Math.round(mark) }} mm
      </text>
    </g>
    <text class="under" x="0" :y="depth + 1.3 * letter" :font-size="0.9 * letter" text-anchor="middle">
      {{ pan.name }}
    </text>
  </svg>
</template>

<style scoped>
svg {
  display: block;
  width: 100%;
}
text {
  font-weight: 700;
  fill: var(--ink);
}
.under {
  font-weight: 600;
  fill: var(--ink2);
}
</style>
