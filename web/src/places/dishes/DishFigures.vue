<script setup lang="ts">
/** What a portion comes to: salt of the whole mouthful, sauce, depth, minutes, the plate, money, allergens. */
import { NButton } from 'naive-ui'
import { computed } from 'vue'
import AllergenList from '@/parts/AllergenList.vue'
import FactList from '@/parts/FactList.vue'
import { grams, millilitres, minutes, mm, percent } from '@/parts/format'
import { fixed, temperature } from '@/parts/ways'
import { useSession } from '@/shell/session'
import type { Seen } from './dish'

const props = defineProps<{ seen: Seen }>()
defineEmits<{ salt: [pct: number] }>()
const session = useSession()
const most = computed(() => Math.max(...props.seen.mouthful.brings.map((one) => one.salt_g), 0.01))
const facts = computed(() => {
  const { seen } = props
  return {
    'A portion weighs': grams(seen.portion_g),
    'Vessel, filled': seen.vessel_g ? grams(seen.vessel_g) : null,
    Deep: seen.fill_mm ? `${mm(seen.fill_mm)}, ${percent(100 * (seen.fill_share ?? 0))}` : null,
    'Filled hot': seen.hot_minutes ? minutes(seen.hot_minutes) : null,
    'From the fridge': seen.cold_minutes ? `about ${minutes(5 * Math.round(seen.cold_minutes / 5))}` : null,
    'On the plate': temperature(seen.plate_c),
    Costs: session.money(seen.cost),
    Energy: `${Math.round(seen.kcal)} kcal`,
  }
})
</script>

<template>
  <section class="figures" aria-label="A portion" tabindex="0">
    <h2>Salt of the mouthful</h2>
    <p class="salt">
      <b>{{ fixed(seen.mouthful.salt_pct, 2) }} %</b> {{ fixed(seen.mouthful.salt_g, 1) }} g a portion
    </p>
    <ul class="brings">
      <li v-for="one in seen.mouthful.brings.slice(0, 5)" :key="one.name">
        <span class="bar" :style="{ width: `${(100 * one.salt_g) / most}%` }" />
        <span class="what">{{ one.name }}</span>
        <span class="n">{{ fixed(one.salt_g, 2) }} g</span>
      </li>
    </ul>
    <p v-if="seen.mouthful.suited_pct != null" class="warning">
      The rest is salty: {{ fixed(seen.mouthful.suited_pct, 2) }} % in the sauce keeps the mouthful at
      {{ seen.mouthful.target_pct }} %.
      <NButton size="small" @click="$emit('salt', seen.mouthful.suited_pct)">Salt it so here</NButton>
    </p>
    <h2>Sauce</h2>
    <p v-for="one in seen.sauces" :key="one.part" class="sauce">
      <span class="dot" :style="{ background: one.colour }" />
      <b>{{ millilitres(one.portion_ml) }}</b> {{ one.name }}, {{ session.gradeName(one.grade) || 'no grade' }}
      <span class="quiet">on the plate {{ one.on_plate }}</span>
    </p>
    <p v-if="!seen.sauces.length" class="quiet">No sauce yet.</p>
    <FactList :facts="facts" />
    <p v-for="text in seen.remarks" :key="text" class="warning">{{ text }}</p>
    <AllergenList :allergens="seen.allergens" />
    <p class="quiet">Salt and portions are kitchen arithmetic, not dietary advice; widths and minutes are estimates.</p>
  </section>
</template>

<style scoped>
.figures {
  display: flex;
  flex-direction: column;
  gap: 8px;
}
h2 {
  font-size: 20px;
}
.salt b {
  font-size: 32px;
}
.brings {
  display: flex;
  flex-direction: column;
  gap: 3px;
  margin: 0;
  padding: 0;
  list-style: none;
}
.brings li {
  position: relative;
  display: flex;
  justify-content: space-between;
  gap: 8px;
  padding: 2px 6px;
  font-size: 15px;
}
.bar {
  position: absolute;
  inset: 0 auto 0 0;
  background: var(--butter-wash);
}
.what,
.n {
  position: relative;
}
.n {
  white-space: nowrap;
}
.what {
  overflow: hidden;
  text-overflow: ellipsis;
  white-space: nowrap;
}
.dot {
  display: inline-block;
  width: 16px;
  height: 16px;
  border: 1px solid var(--fog4);
  border-radius: 50%;
  vertical-align: -2px;
}
.sauce .quiet {
  display: block;
  padding-left: 20px;
}
.figures :deep(dl) {
  grid-template-columns: 1fr;
}
</style>
