<script setup lang="ts">
/** The plate from above, to scale: each pool as wide as that much sauce runs, the food over or under it.
 * Press a part to change it, pull a pool's edge to pour more. */
import { computed, ref } from 'vue'
import { inPicture } from '@/parts/picture'
import type { Seen } from './dish'
import PoolOnPlate from './PoolOnPlate.vue'
import Tints from './Tints.vue'
import { grams, millilitres, mm } from '@/parts/format'

const props = defineProps<{ seen: Seen; chosen: string | null }>()
const emit = defineEmits<{ choose: [part: string]; pull: [part: string, ratio: number] }>()
const plate = computed(() => props.seen.plate_mm / 2)
const well = computed(() => props.seen.well_mm / 2)
const letter = computed(() => plate.value / 12)
/** Pieces laid out: one in the middle, more in a ring, sides farther out. */
const food = computed(() => {
  const all = props.seen.food.flatMap((one, kind) =>
    Array.from({ length: Math.min(one.pieces, 12) }, (_, n) => ({ ...one, kind, n })),
  )
  return all.map((one, at) => {
    const ring = one.kind === 0 && one.pieces === 1 ? 0 : one.kind === 0 ? 0.32 : 0.6
    const same = all.filter((other) => other.kind === one.kind).length
    const turn = one.kind === 0 ? -Math.PI / 2 : -Math.PI / 2 + one.kind * 2.1
    const angle = turn + (one.n * (one.kind === 0 ? 2 * Math.PI : 1.5)) / same
    const r = ring * well.value
    return {
      ...one,
      at,
      x: r * Math.cos(angle),
      y: r * Math.sin(angle),
      tilt: ring ? (angle * 180) / Math.PI + 90 : -18,
    }
  })
})
const under = computed(() => props.seen.pools.filter((pool) => !['nap', 'over', 'cordon'].includes(pool.use)))
const over = computed(() => props.seen.pools.filter((pool) => ['nap', 'over'].includes(pool.use)))
const round = computed(() => props.seen.pools.filter((pool) => pool.use === 'cordon'))
const svg = ref<SVGSVGElement | null>(null)
let held: { pool: Seen['pools'][number]; from: number } | null = null
function reach(event: PointerEvent): number {
  const { x, y } = inPicture(svg.value!, event)
  return Math.hypot(x, y)
}
function grab(event: PointerEvent, pool: Seen['pools'][number]): void {
  ;(event.target as Element).setPointerCapture(event.pointerId)
  held = { pool, from: reach(event) }
  emit('choose', pool.part)
}
function letGo(event: PointerEvent): void {
  if (!held) return
  const { pool, from } = held
  held = null
  const wider = Math.max(0.3, (pool.radius_mm + reach(event) - from) / pool.radius_mm)
  if (Math.abs(wider - 1) > 0.01) emit('pull', pool.part, wider ** pool.power)
}
function byKey(event: KeyboardEvent, pool: Seen['pools'][number]): void {
  const step = { ArrowUp: 2, ArrowRight: 2, ArrowDown: -2, ArrowLeft: -2 }[event.key]
  if (!step) return
  event.preventDefault()
  emit('pull', pool.part, ((pool.radius_mm + step) / pool.radius_mm) ** pool.power)
}
</script>

<template>
  <svg
    ref="svg"
    :viewBox="`${-plate - 4} ${-plate - 4} ${2 * plate + 8} ${2 * plate + 8 + 2 * letter}`"
    role="group"
    aria-label="The plate from above"
  >
    <Tints :colours="[]" :size="letter" />
    <circle :r="plate" class="plate" />
    <circle :r="well" class="well" />
    <PoolOnPlate
      v-for="pool in under"
      :key="pool.part"
      :pool="pool"
      lies="under it"
      :well="well"
      :chosen="chosen === pool.part"
      @choose="emit('choose', pool.part)"
    />
    <g
      v-for="one in food"
      :key="one.at"
      class="part food"
      :class="{ chosen: chosen === one.part }"
      role="button"
      :tabindex="one.n ? -1 : 0"
      :aria-label="`${one.name}, ${grams(one.grams)}`"
      :transform="`translate(${one.x} ${one.y}) rotate(${one.tilt})`"
      @click="emit('choose', one.part)"
      @keydown.enter="emit('choose', one.part)"
    >
      <rect
        :x="-one.across_mm / 2"
        :y="-one.deep_mm / 2"
        :width="one.across_mm"
        :height="one.deep_mm"
        :rx="one.deep_mm * 0.42"
        :fill="one.colour"
      />
    </g>
    <PoolOnPlate
      v-for="pool in over"
      :key="pool.part"
      class="nap"
      :pool="pool"
      lies="over it"
      :well="well"
      :chosen="chosen === pool.part"
      @choose="emit('choose', pool.part)"
    />
    <PoolOnPlate
      v-for="pool in round"
      :key="pool.part"
      :pool="pool"
      lies="round it"
      :well="well"
      :chosen="chosen === pool.part"
      @choose="emit('choose', pool.part)"
    />
    <circle
      v-for="pool in [...under, ...over]"
      :key="`edge-${pool.part}`"
      class="edge"
      :r="pool.radius_mm"
      role="slider"
      tabindex="0"
      :aria-label="`How much: ${pool.name}`"
      aria-valuemin="0"
      :aria-valuenow="Math.round(pool.ml)"
      :aria-valuetext="millilitres(pool.ml)"
      @pointerdown="grab($event, pool)"
      @pointerup="letGo"
      @keydown="byKey($event, pool)"
    />
    <text :y="plate + 1.6 * letter" :font-size="letter" text-anchor="middle">
      plate {{ Math.round(plate / 5) }} cm
      <template v-for="pool in seen.pools" :key="pool.part">
        {{ '' }} · {{ millilitres(pool.ml) }} runs {{ (pool.radius_mm / 5).toFixed(0) }} cm wide,
        {{ mm(pool.thick_mm, 1) }} high
      </template>
    </text>
  </svg>
</template>

<style scoped>
svg {
  display: block;
  width: 100%;
  max-height: 52vh;
  touch-action: none;
}
.plate {
  fill: var(--white);
  stroke: var(--fog3);
  stroke-width: 1.5;
}
.well {
  fill: none;
  stroke: var(--fog2);
  stroke-width: 1;
}
.part {
  cursor: pointer;
  outline: none;
}
.food rect {
  stroke: var(--fog4);
  stroke-width: 0.6;
}
.food.chosen rect,
.food:focus-visible rect {
  stroke: var(--ink);
  stroke-width: 2;
}
.nap {
  fill-opacity: 0.86;
}
.edge {
  fill: none;
  stroke: transparent;
  stroke-width: 12;
  cursor: ew-resize;
  outline: none;
}
.edge:hover,
.edge:focus-visible {
  stroke: var(--russet);
  stroke-width: 3;
}
text {
  font-family: var(--text);
  fill: var(--ink);
}
</style>
