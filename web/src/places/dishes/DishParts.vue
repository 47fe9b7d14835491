<script setup lang="ts">
/** The parts of a dish in a list, and what can be put to it. */
import { NButton } from 'naive-ui'
import { computed } from 'vue'
import type { Schemas } from '@/api/client'
import { grams, number } from '@/parts/format'
import { temperature } from '@/parts/ways'
import { useSession } from '@/shell/session'
import type { DishDraft } from './dish'

const props = defineProps<{ dish: DishDraft; sauces: Schemas['SauceName'][]; chosen: string | null }>()
const emit = defineEmits<{ choose: [part: string] }>()
const session = useSession()
const doc = computed(() => props.dish.typed.value)
type Row = Record<string, unknown>
const rows = (list: string) => (doc.value[list] ?? []) as Row[]
const nameOf = (key: unknown) => session.ingredients.get(String(key))?.name ?? 'choose one'
const sauceOf = (key: unknown) => props.sauces.find((s) => String(s.id) === String(key))?.name ?? 'choose a sauce'
const useOf = (key: unknown) => session.uses.find((u) => u.key === key)?.name ?? ''
const shown = (value: unknown) => (Number.isFinite(Number(value)) ? number(Number(value)) : String(value))
const weighed = (value: unknown) => (Number.isFinite(Number(value)) ? grams(Number(value)) : String(value))
const parts = computed(() => [
  ...rows('sauces').map((row, i) => ({ part: `sauces[${i}]`, name: sauceOf(row.sauce), more: useOf(row.use) })),
  ...rows('solids').map((row, i) => ({
    part: `solids[${i}]`,
    name: nameOf(row.ingredient),
    more:
      row.pieces && row.piece_g
        ? `${shown(row.pieces)} ${row.counted || 'pieces'}, ${weighed(row.piece_g)} each`
        : `${weighed(row.grams)} a portion${row.state === 'dry' ? ', dry' : ''}`,
  })),
  ...(doc.value.vessel
    ? [{ part: 'vessel', name: doc.value.vessel.name, more: `for ${shown(doc.value.vessel.portions)}` }]
    : []),
  ...rows('toppings').map((row, i) => ({
    part: `toppings[${i}]`,
    name: nameOf(row.ingredient),
    more: `${row.place === 'coating' ? 'all around' : 'over the top'}, ${row.g_per_cm2 ? `${shown(row.g_per_cm2)} g/cm²` : weighed(row.grams)}`,
  })),
  ...rows('rounds').map((row, i) => ({ part: `rounds[${i}]`, name: String(row.what), more: 'in rounds' })),
  { part: 'finish', name: 'At the end, the plate', more: `plate ${temperature(doc.value.plate_c ?? 60)}` },
])
function put(list: string, row: Row): void {
  const at = rows(list).length
  void props.dish.edit((d) => (d[list] ??= []).push(row))
  emit('choose', `${list}[${at}]`)
}
function inVessel(): void {
  void props.dish.edit((d) => (d.vessel = { name: 'dish', shape: 'dish', diameter_cm: 14, depth_cm: 5, portions: 1 }))
  emit('choose', 'vessel')
}
</script>

<template>
  <nav aria-label="Parts of the dish">
    <button
      v-for="one in parts"
      :key="one.part"
      type="button"
      :class="{ here: chosen === one.part, wrong: one.part !== 'finish' && dish.problemAt(one.part) }"
      @click="emit('choose', one.part)"
    >
      <b>{{ one.name }}</b>
      <span>{{ one.more }}</span>
    </button>
    <div class="put">
      <NButton size="small" @click="put('sauces', { sauce: String(sauces[0]?.id ?? ''), use: 'nap' })">+ sauce</NButton>
      <NButton size="small" @click="put('solids', { ingredient: 'potato', grams: 100 })">+ food</NButton>
      <NButton v-if="!doc.vessel" size="small" @click="inVessel">+ vessel</NButton>
      <NButton
        size="small"
        @click="
          put(
            'toppings',
            doc.vessel ? { ingredient: 'breadcrumbs', g_per_cm2: 0.06 } : { ingredient: 'breadcrumbs', grams: 8 },
          )
        "
        >+ topping</NButton
      >
      <NButton
        size="small"
        @click="put('rounds', { what: 'pieces', each: 1, piece_cm2: 50, room_cm2: 500, minutes: 4 })"
        >+ rounds</NButton
      >
    </div>
  </nav>
</template>

<style scoped>
nav {
  display: flex;
  flex-direction: column;
  gap: 6px;
}
nav > button {
  flex: none;
  display: flex;
  flex-direction: column;
  min-height: 48px;
  padding: 5px 10px;
  border: 2px solid var(--fog3);
  border-radius: 10px;
  background: var(--white);
  text-align: left;
  cursor: pointer;
}
nav > button span {
  font-size: 14px;
  color: var(--ink2);
}
.here {
  border-color: var(--ink);
}
.wrong {
  border-color: var(--danger);
}
.put {
  display: flex;
  flex-wrap: wrap;
  gap: 6px;
}
.put :deep(button) {
  min-height: 44px;
}
</style>
