<script setup lang="ts">
/** A slice with its cap from the side, or a croquette cut through: to scale, how thick and how much. */
import { computed } from 'vue'
import type { Seen } from './dish'
import Tints from './Tints.vue'
import { grams, mm } from '@/parts/format'

const props = defineProps<{ seen: Seen; chosen: string | null }>()
const emit = defineEmits<{ choose: [part: string]; pull: [part: string, ratio: number] }>()
const sauce = computed(() => props.seen.sauces[0])
const base = computed(() => props.seen.food[0])
const pieces = computed(() => props.seen.slice?.pieces ?? 1)
const cap = computed(() => props.seen.slice?.cap_mm ?? 0)
const bread = computed(() => props.seen.slice?.bread_mm ?? 0)
const radius = computed(() => (props.seen.croquette?.across_mm ?? 0) / 2)
function byKey(event: KeyboardEvent): void {
  const step = { ArrowUp: 1.1, ArrowDown: 1 / 1.1 }[event.key]
  if (!step || !sauce.value) return
  event.preventDefault()
  emit('pull', sauce.value.part, step)
}
</script>

<template>
  <svg
    v-if="seen.picture === 'slices'"
    :viewBox="`-8 ${-cap - 14} 150 ${cap + bread + 26}`"
    role="group"
    aria-label="A slice from the side"
  >
    <Tints :colours="[]" :size="5" />
    <rect
      v-if="base"
      class="part"
      :class="{ chosen: chosen === base.part }"
      x="0"
      y="0"
      width="100"
      :height="bread"
      rx="3"
      :fill="base.colour"
      role="button"
      tabindex="0"
      :aria-label="`${base.name}, ${pieces}`"
      @click="emit('choose', base.part)"
      @keydown.enter="emit('choose', base.part)"
    />
    <g
      v-if="sauce"
      class="part"
      :class="{ chosen: chosen === sauce.part }"
      role="slider"
      tabindex="0"
      :aria-label="`How thick: ${sauce.name}`"
      :aria-valuenow="Number(cap.toFixed(1))"
      :aria-valuetext="mm(cap, 1)"
      @click="emit('choose', sauce.part)"
      @keydown="byKey"
    >
      <rect x="1" :y="-cap" width="98" :height="cap" rx="2" :fill="sauce.colour" />
    </g>
    <text x="104" :y="-cap / 2 + 2" font-size="5">
      <tspan class="mm">{{ mm(cap, 1) }}</tspan>
    </text>
    <text x="0" :y="bread + 9" font-size="5">{{ pieces }} {{ base?.counted || base?.name }} a portion</text>
  </svg>
  <svg v-else viewBox="-70 -34 140 74" role="group" aria-label="A croquette cut through">
    <Tints :colours="[]" :size="5" />
    <circle v-if="seen.coating.length" :r="radius + 2.5" class="crumb" @click="emit('choose', 'toppings[0]')" />
    <circle
      v-if="sauce"
      class="part"
      :class="{ chosen: chosen === sauce.part }"
      :r="radius"
      :fill="sauce.colour"
      role="button"
      tabindex="0"
      :aria-label="sauce.name"
      @click="emit('choose', sauce.part)"
      @keydown.enter="emit('choose', sauce.part)"
    />
    <circle :r="radius" fill="url(#solids-0)" pointer-events="none" />
    <text y="37" font-size="5" text-anchor="middle">
      {{ seen.croquette?.count }} a portion, {{ grams(seen.croquette?.each_g ?? 0) }} each{{
        seen.coating.length ? `, in ${seen.coating.join(', ')}` : ''
      }}
    </text>
  </svg>
</template>

<style scoped>
svg {
  display: block;
  width: 100%;
  max-height: 46vh;
}
.part {
  cursor: pointer;
  outline: none;
  stroke: var(--fog4);
  stroke-width: 0.4;
}
.part.chosen,
.part:focus-visible {
  stroke: var(--ink);
  stroke-width: 1;
}
.crumb {
  fill: var(--sauce-edge);
  cursor: pointer;
}
text {
  font-family: var(--text);
  fill: var(--ink);
}
.mm {
  font-weight: 800;
}
</style>
