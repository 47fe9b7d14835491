<script setup lang="ts">
/** One dish on the list: what sauce it needs and why, its vessels, its plate, its allergens. */
import AllergenList from '@/parts/AllergenList.vue'
import { grams, millilitres, minutes } from '@/parts/format'
import { useSession } from '@/shell/session'
import type { Plan } from './service'

defineProps<{ line: Plan['lines'][number] }>()
const session = useSession()
</script>

<template>
  <h3>{{ line.called }}</h3>
  <p>{{ line.line.portions }} portions</p>
  <p v-for="text in line.remarks" :key="text" class="warning">{{ text }}</p>
  <div v-for="(need, i) in line.needs" :key="i" class="need">
    <b>{{ millilitres(need.volume_ml) }}</b> {{ need.use.name.toLowerCase() }}
    <p v-for="text in need.lines" :key="text" class="quiet">{{ text }}</p>
  </div>
  <p v-if="line.layout">
    <b>{{ line.layout.vessels }} × {{ line.layout.name }}</b
    >, filled {{ Math.round(line.layout.fill_mm) }} mm deep, {{ grams(line.layout.each_g) }} each
  </p>
  <p v-for="round in line.rounds" :key="round.line">
    {{ round.line }}: <b>{{ minutes(round.minutes) }}</b>
  </p>
  <p v-if="line.finish">Then {{ line.finish }}</p>
  <p v-for="text in line.on_plate" :key="text" class="quiet">On the plate, {{ text }}</p>
  <p v-for="text in line.left_out" :key="text">
    <b>{{ text }}</b>
  </p>
  <p>{{ session.money(line.cost_each) }} a portion</p>
  <AllergenList :allergens="line.allergens ?? []" />
</template>

<style scoped>
.need p {
  font-size: 15px;
}
</style>
