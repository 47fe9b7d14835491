<script setup lang="ts">
/** Choices of how figures are written: degrees, measures, spoons, decimals, days. */
import type { Schemas } from '@/api/client'
import { vChoices } from '@/parts/choices'

type Ways = Schemas['KitchenWays']
defineProps<{ ways: Ways }>()
const emit = defineEmits<{ change: [change: Partial<Ways>] }>()
const fields = [
  {
    key: 'measures',
    label: 'Measures first',
    choices: [
      ['metric', 'grams, millilitres'],
      ['us', 'ounces, cups'],
    ],
  },
  {
    key: 'temperature',
    label: 'Degrees',
    choices: [
      ['C', '°C'],
      ['F', '°F'],
    ],
  },
  {
    key: 'tablespoon_ml',
    label: 'A tablespoon',
    choices: [
      [15, '15 mL'],
      [20, '20 mL'],
    ],
  },
  {
    key: 'decimals',
    label: 'Decimals',
    choices: [
      ['.', '2.5'],
      [',', '2,5'],
    ],
  },
  {
    key: 'dates',
    label: 'Days',
    choices: [
      ['day', '27 Nov'],
      ['month', 'Nov 27'],
      ['iso', '2026-11-27'],
    ],
  },
] as const
</script>

<template>
  <div class="ways">
    <div v-for="field in fields" :key="field.key" class="field">
      <span :id="`way-${field.key}`" class="label">{{ field.label }}</span>
      <div v-choices role="radiogroup" :aria-labelledby="`way-${field.key}`" class="choices">
        <button
          v-for="[value, label] in field.choices"
          :key="value"
          type="button"
          role="radio"
          class="chip"
          :aria-checked="ways[field.key] === value"
          @click="emit('change', { [field.key]: value } as Partial<Ways>)"
        >
          {{ label }}
        </button>
      </div>
    </div>
  </div>
</template>

<style scoped>
.ways {
  display: flex;
  flex-direction: column;
  gap: 10px;
}
.choices {
  display: flex;
  flex-wrap: wrap;
  gap: 6px;
}
</style>
