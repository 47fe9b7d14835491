<script setup lang="ts">
/** The stove from above: each ring with what stands on it, and what stands on none. */
import { computed } from 'vue'
import type { Schemas } from '@/api/client'
import { useHob, type Line } from '@/shell/hob'
import PotTile from './PotTile.vue'

const props = defineProps<{ rings: Schemas['RingOfHob'][]; pots: Line[] }>()
const hob = useHob()
const widest = computed(() => Math.max(20, ...props.rings.map((ring) => ring.takes_cm ?? 0)))
/** Drawn as wide as it takes; one that takes any is as wide as the widest. */
const size = (ring: Schemas['RingOfHob']) => `${Math.round((100 * (ring.takes_cm ?? widest.value)) / widest.value)}%`
/** Where a name says where it is, it is there: the back ones above, left before right. */
const placed = computed(() => {
  const at = ({ name }: Schemas['RingOfHob']) =>
    2 * Number(/front/i.test(name)) + Number(/right/i.test(name)) - 2 * Number(/back/i.test(name))
  return [...props.rings].sort((a, b) => at(a) - at(b))
})
const on = (ring: string) => props.pots.filter((pot) => pot.ring === ring && !pot.put_away)
const known = computed(() => new Set(props.rings.map((ring) => ring.name)))
const off = computed(() => props.pots.filter((pot) => !known.value.has(pot.ring) && !pot.put_away))
/** All of it is in the cold: only what came of it has still to be written down. */
const away = computed(() => props.pots.filter((pot) => pot.put_away))
const left = (pot: Line) => hob.left(pot)
/** Whose turn it is first: what is over, then what wants hands, then what ends first. */
const next = computed(
  () =>
    props.pots
      .filter((pot) => !pot.put_away)
      .sort((a, b) => {
        const [one, two] = [left(a) ?? 1e9, left(b) ?? 1e9]
        return Number(two <= 0) - Number(one <= 0) || Number(b.hands === 'all') - Number(a.hands === 'all') || one - two
      })[0],
)
</script>

<template>
  <div class="map">
    <ul v-if="rings.length" class="rings" aria-label="Rings">
      <li v-for="ring in placed" :key="ring.name">
        <span class="ring" :class="{ lit: on(ring.name).length }" :style="{ height: size(ring) }" aria-hidden="true" />
        <span class="name">{{ ring.name }}</span>
        <p v-if="!on(ring.name).length" class="quiet empty">free</p>
        <PotTile v-for="pot in on(ring.name)" :key="pot.id" :pot="pot" :first="pot === next" />
      </li>
    </ul>
    <template v-if="off.length">
      <h2>On no ring</h2>
      <ul class="off">
        <li v-for="pot in off" :key="pot.id">
          <PotTile :pot="pot" :first="pot === next" />
        </li>
      </ul>
    </template>
    <template v-if="away.length">
      <h2>Put away, still to be written down</h2>
      <ul class="off">
        <li v-for="pot in away" :key="pot.id">
          <PotTile :pot="pot" :first="false" />
        </li>
      </ul>
    </template>
  </div>
</template>

<style scoped>
.map {
  display: flex;
  flex-direction: column;
  gap: 10px;
}
ul {
  margin: 0;
  padding: 0;
  list-style: none;
}
.rings {
  display: grid;
  grid-template-columns: repeat(2, minmax(0, 1fr));
  gap: 12px;
  max-width: 1300px;
  padding: 14px;
  border-radius: 18px;
  background: var(--fog2);
}
.rings li {
  position: relative;
  display: flex;
  flex-direction: column;
  align-items: center;
  justify-content: center;
  gap: 6px;
  min-height: 190px;
}
.ring {
  position: absolute;
  top: 50%;
  left: 50%;
  max-height: 100%;
  aspect-ratio: 1;
  transform: translate(-50%, -50%);
  border: 10px double var(--fog3);
  border-radius: 50%;
}
.lit {
  border-color: var(--butter);
}
.name {
  position: absolute;
  top: 0;
  left: 4px;
  font-size: 16px;
  color: var(--ink2);
}
.empty {
  position: relative;
}
.off {
  display: flex;
  flex-wrap: wrap;
  gap: 12px;
}
.off :deep(.pot) {
  min-width: 240px;
}
@media (max-width: 700px) {
  .rings li {
    min-height: 150px;
    padding-top: 22px;
  }
}
</style>
