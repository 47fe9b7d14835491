<script setup lang="ts">
/** Marks that tell sauces, food and what is strewn over apart without colour: dots, stripes, lumps. */
defineProps<{ colours: string[]; size: number }>()
</script>

<template>
  <defs>
    <template v-for="kind in ['sauce', 'mixed', 'solids']" :key="kind">
      <pattern
        v-for="n in 12"
        :id="`${kind}-${n - 1}`"
        :key="n"
        :width="size * (kind === 'sauce' ? 0.9 : 1.6)"
        :height="size * (kind === 'sauce' ? 0.9 : 1.1)"
        patternUnits="userSpaceOnUse"
      >
        <template v-if="kind === 'sauce'">
          <circle v-if="n % 3 === 2" :cx="0.45 * size" :cy="0.45 * size" :r="0.13 * size" class="mark" />
          <path
            v-else-if="n % 3 === 0"
            :d="`M0,${0.9 * size} L${0.9 * size},0`"
            class="stripe"
            :stroke-width="0.1 * size"
          />
        </template>
        <template v-else>
          <ellipse :cx="0.5 * size" :cy="0.35 * size" :rx="0.42 * size" :ry="0.26 * size" class="lump" />
          <ellipse :cx="1.25 * size" :cy="0.85 * size" :rx="0.36 * size" :ry="0.22 * size" class="lump" />
        </template>
      </pattern>
    </template>
    <pattern id="topping" :width="0.7 * size" :height="0.5 * size" patternUnits="userSpaceOnUse">
      <rect :width="0.22 * size" :height="0.16 * size" :x="0.1 * size" :y="0.1 * size" class="mark" />
      <rect :width="0.18 * size" :height="0.14 * size" :x="0.42 * size" :y="0.28 * size" class="mark" />
    </pattern>
  </defs>
</template>

<style scoped>
.mark {
  fill: var(--ink);
  fill-opacity: 0.28;
}
.stripe {
  fill: none;
  stroke: var(--ink);
  stroke-opacity: 0.25;
}
.lump {
  fill: var(--ink);
  fill-opacity: 0.1;
  stroke: var(--ink);
  stroke-opacity: 0.22;
  stroke-width: 0.3;
}
</style>
