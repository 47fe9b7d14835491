<script setup lang="ts">
/** The figures of one sauce of the service, and which pot it comes from. */
import { computed } from 'vue'
import FactList from '@/parts/FactList.vue'
import { grams, millilitres, percent } from '@/parts/format'
import ThicknessRibbon from '@/parts/ThicknessRibbon.vue'
import { vChoices } from '@/parts/choices'
import { useSession } from '@/shell/session'
import type { Plan } from './service'

const props = defineProps<{ plan: Plan; branch: Plan['branches'][number]; shared: boolean }>()
const emit = defineEmits<{ force: [sauce: string, way: string] }>()
const session = useSession()
const force = computed(() => props.plan.service.force?.[props.branch.sauce] ?? 'auto')
const ways = computed(() => [
  { key: 'auto', name: 'as it comes' },
  { key: 'own', name: 'a pot of its own' },
  ...(props.branch.can_share
    ? [
        { key: 'share', name: 'share a mother' },
        { key: 'thicken', name: 'bind it by itself' },
      ]
    : []),
])
const some = (amount: number, words: string) => (amount ? words : null)
const facts = computed(() => {
  const { branch } = props
  return {
    Make: `${millilitres(branch.made_ml)}, ${grams((branch.batches ?? 1) * (branch.final.total_g ?? branch.final.mass_g))}`,
    Grade: session.gradeName(branch.grade) || 'as it is',
    'Of the pot': some(branch.let_down_g || branch.base_g, grams(branch.base_g)),
    'Let down with': some(branch.let_down_g, grams(branch.let_down_g)),
    'Bound with flour': some(branch.bound_g, grams(branch.bound_g)),
    Salt: percent(branch.final.salt_pct, 2),
    'Weighed out': branch.batches && branch.batches > 1 ? `${branch.batches} times alike` : null,
    'Finish in': branch.in_pan || branch.pan,
    Cost: session.money(branch.cost),
    'Made ahead': some(branch.from_stock_ml, millilitres(branch.from_stock_ml)),
  }
})
</script>

<template>
  <h3>{{ branch.name }}</h3>
  <ThicknessRibbon
    :viscosity="branch.final.viscosity_pa_s"
    :low="branch.final.viscosity_low_pa_s"
    :high="branch.final.viscosity_high_pa_s"
    :target="branch.grade"
    slim
  />
  <FactList :facts="facts" />
  <p v-if="branch.guests?.length" class="guests">Guests first: {{ branch.guests.join('; ') }}</p>
  <p v-if="branch.why" class="quiet">{{ shared ? '' : 'On its own: ' }}{{ branch.why }}.</p>
  <ul>
    <li v-for="one in branch.asked" :key="`${one.line}${one.need.volume_ml}`">
      {{ millilitres(one.need.volume_ml) }} for {{ one.dish }}
    </li>
    <li v-if="branch.film_ml" class="quiet">{{ millilitres(branch.film_ml) }} clings to pot and whisk, or is tasted</li>
  </ul>
  <div v-choices class="ways" role="radiogroup" aria-label="Which pot">
    <button
      v-for="way in ways"
      :key="way.key"
      type="button"
      role="radio"
      :aria-checked="force === way.key"
      @click="emit('force', branch.sauce, way.key)"
    >
      {{ way.name }}
    </button>
  </div>
</template>

<style scoped>
.ribbon {
  max-width: 420px;
}
.guests {
  font-weight: 700;
  color: var(--russet);
}
ul {
  margin: 0;
  padding-left: 20px;
}
.ways {
  display: flex;
  flex-wrap: wrap;
  gap: 6px;
}
.ways button {
  min-height: 44px;
  padding: 0 14px;
  border: 2px solid var(--fog3);
  border-radius: 10px;
  background: var(--white);
  font-weight: 600;
  cursor: pointer;
}
.ways [aria-checked='true'] {
  border-color: var(--ink);
  background: var(--ink);
  color: var(--white);
}
</style>
