<script setup lang="ts">
/** What is in the fridge or the freezer already, and what of it is used first. */
import { NButton, NSelect } from 'naive-ui'
import { computed, onMounted, ref } from 'vue'
import { api, ask, type Schemas } from '@/api/client'
import AmountField from '@/parts/AmountField.vue'
import { grams, millilitres } from '@/parts/format'
import NumberField from '@/parts/NumberField.vue'
import { found } from '@/parts/options'
import { useSession } from '@/shell/session'
import { stateWords } from '../keeping/words'
import type { Loose, ServiceDraft } from './service'

const props = defineProps<{ service: ServiceDraft }>()
const session = useSession()
const entries = computed(() => (props.service.doc.value.on_hand ?? []) as Loose[])
const plan = computed(() => props.service.plan.value)
const places = ['fridge', 'freezer'].map((place) => ({ value: place, label: place }))

/** What today takes: a sauce, a ready roux, or an ingredient, as "kind:key". */
const things = computed(() => {
  // Of two branches of a sauce the first names it: what follows may be a guest's variant.
  const sauces = new Map((plan.value?.branches ?? []).map((b) => [`sauce:${b.sauce}`, b.name] as const).reverse())
  const rest = (props.service.production.value?.buy ?? []).map((b) => [`ingredient:${b.ingredient}`, b.name])
  const roux = ['white', 'blond', 'brown'].map((colour) => [`roux:${colour}`, `Ready ${colour} roux`])
  return [...sauces, ...roux, ...rest].map(([value, label]) => {
    const aliases = session.ingredients.get(value!.replace('ingredient:', ''))?.aliases.join(' ') ?? ''
    return { value: value!, label: label!, aliases }
  })
})
function nameOf(one: Loose): string {
  if (one.roux) return `Ready ${one.roux} roux`
  if (one.sauce) return things.value.find((t) => t.value === `sauce:${one.sauce}`)?.label ?? 'a sauce no longer used'
  return session.ingredients.get(one.ingredient)?.name ?? one.ingredient
}
function usual(kind: string, key: string) {
  if (kind === 'roux') return { value: 500, unit: 'g' }
  const solid =
    kind === 'ingredient' && !props.service.production.value?.buy.find((b) => b.ingredient === key)?.volume_ml
  return { value: 1, unit: solid ? 'kg' : 'L' }
}
function add(what: string): void {
  const [kind, key] = what.split(':', 2) as [string, string]
  void props.service.edit((doc) => {
    doc.on_hand = [...(doc.on_hand ?? []), { [kind]: key, amount: usual(kind, key), age_days: 1 }]
  })
}
/** What the fridge has of today's sauces, oldest first; what has something else in it is no such sauce. */
const kept = ref<Schemas['KeptLine'][]>([])
onMounted(async () => {
  kept.value = await ask(api.GET('/api/keeping')).catch(() => [])
})
const offered = computed(() => {
  const wanted = new Set((plan.value?.branches ?? []).map((branch) => String(branch.sauce)))
  const there = new Set(entries.value.map((one) => String(one.sauce)))
  return kept.value.filter(
    (one) =>
      one.sauce_id !== null &&
      wanted.has(String(one.sauce_id)) &&
      !there.has(String(one.sauce_id)) &&
      one.state !== 'over',
  )
})
function take(one: Schemas['KeptLine']): void {
  void props.service.edit((doc) => {
    doc.on_hand = [
      ...(doc.on_hand ?? []),
      {
        sauce: String(one.sauce_id),
        amount: { value: Math.floor(one.left_g), unit: 'g' },
        age_days: one.age_days,
        place: one.state === 'frozen' ? 'freezer' : 'fridge',
        ...(one.viscosity_pa_s ? { viscosity_pa_s: one.viscosity_pa_s } : {}),
      },
    ]
  })
}
const problem = (i: number, field: string) => props.service.problemAt(`on_hand[${i}].${field}`)
</script>

<template>
  <details>
    <summary>
      On hand already: {{ entries.length || 'nothing'
      }}{{ offered.length ? `; ${offered.length} more in keeping` : '' }}
    </summary>
    <div v-for="(one, i) in entries" :key="i" class="hand">
      <b>{{ nameOf(one) }}</b>
      <AmountField
        :amount="one.amount"
        :label="`On hand, ${nameOf(one)}`"
        :problem="problem(i, 'amount')"
        @change="service.edit((doc) => (doc.on_hand[i].amount = $event), `hand.${i}`)"
      />
      <NumberField
        :value="one.age_days"
        label="days old"
        :problem="problem(i, 'age_days')"
        @change="service.edit((doc) => (doc.on_hand[i].age_days = $event), `age.${i}`)"
      />
      <NSelect
        class="place"
        :value="one.place ?? 'fridge'"
        :options="places"
        :aria-label="`Where ${nameOf(one)} is`"
        @update:value="(place: string) => service.edit((doc) => (doc.on_hand[i].place = place))"
      />
      <NButton
        quaternary
        :aria-label="`Take ${nameOf(one)} off`"
        @click="service.edit((doc) => doc.on_hand.splice(i, 1))"
        >×</NButton
      >
    </div>
    <div v-for="one in offered" :key="one.id" class="hand">
      <b>{{ one.name }}</b>
      <span
        >{{ grams(one.left_g) }} in the {{ one.state === 'frozen' ? 'freezer' : 'fridge' }}, {{ stateWords(one) }}</span
      >
      <span v-if="one.brings.length" class="warning"
        >There is {{ one.brings.join(', ') }} in it: not the sauce as it is saved. Use it by hand.</span
      >
      <span v-else-if="one.lacks.length" class="warning"
        >There is no {{ one.lacks.join(', no ') }} in it: not the sauce as it is saved. Use it by hand.</span
      >
      <NButton v-else @click="take(one)">Use it first</NButton>
    </div>
    <NSelect
      :value="null"
      filterable
      :filter="found"
      :options="things"
      placeholder="Something in the fridge…"
      aria-label="On hand"
      @update:value="add"
    />
    <NumberField
      v-if="entries.some((one) => one.sauce)"
      :value="service.doc.value.keep_days ?? 2"
      label="Made sauces are used up to"
      unit="days old"
      :problem="service.problemAt('keep_days')"
      @change="service.edit((doc) => (doc.keep_days = $event), 'keep')"
    />
    <p v-for="(used, i) in plan?.used ?? []" :key="i" class="quiet">
      {{ used.name }}: {{ millilitres(used.taken_ml) }} used first. {{ used.let_down }}.
    </p>
    <p v-for="one in plan?.roux ?? []" :key="one.pot" class="quiet">
      Ready {{ one.colour }} roux: {{ grams(one.grams) }} of it for
      {{ plan?.pots.find((p) => p.key === one.pot)?.name }}.
    </p>
    <p v-if="entries.length" class="quiet">How long things keep is your kitchen's plan, and the law where you stand.</p>
  </details>
</template>

<style scoped>
summary {
  min-height: 44px;
  line-height: 44px;
  cursor: pointer;
}
.hand {
  display: flex;
  flex-wrap: wrap;
  align-items: end;
  gap: 8px;
  padding: 4px 0 8px;
  border-top: 1px solid var(--fog2);
}
.hand b {
  flex: 1 1 100%;
}
.place {
  width: 108px;
}
</style>
