<script setup lang="ts">
/** The part of a dish that was pressed: its fields, what is wrong with it, and out with it. */
import { NSelect } from 'naive-ui'
import { computed } from 'vue'
import type { Schemas } from '@/api/client'
import { ingredientOption } from '@/parts/options'
import ProblemLine from '@/parts/ProblemLine.vue'
import RowFields, { type RowField } from '@/parts/RowFields.vue'
import { useSession } from '@/shell/session'
import { plateFields, roundFields, sauceFields, solidFields, toppingFields, vesselFields, type DishDraft } from './dish'

const props = defineProps<{ dish: DishDraft; part: string; sauces: Schemas['SauceName'][] }>()
const emit = defineEmits<{ gone: [] }>()
const session = useSession()
const doc = computed(() => props.dish.typed.value)
const named = (rows: { key: string; name: string }[]) => rows.map((row) => ({ value: row.key, label: row.name }))
const sauceOptions = computed(() => props.sauces.map((s) => ({ value: String(s.id), label: s.name })))
const solidsFirst = ['solid', 'vegetable', 'aromatic', 'meat', 'fish', 'seafood']
const ingredients = computed(() =>
  [...session.ingredients.values()]
    .sort((a, b) => Number(solidsFirst.includes(b.role)) - Number(solidsFirst.includes(a.role)))
    .map(ingredientOption),
)
const at = computed(() => /^(sauces|solids|toppings|rounds)\[(\d+)\]$/.exec(props.part))
const list = computed(() => at.value?.[1] ?? '')
const number = computed(() => Number(at.value?.[2] ?? 0))
const row = computed(() => {
  if (at.value) return doc.value[list.value]?.[number.value]
  return props.part === 'vessel' ? doc.value.vessel : doc.value
})
/** As it is shown: a layer by its millimetres, which are ten times its mL for a cm². */
const asShown = computed(() => {
  const per = row.value?.per_ml
  const known = per !== null && per !== undefined && per !== ''
  return { ...row.value, mm: known && Number.isFinite(Number(per)) ? 10 * Number(per) : per }
})
const fields = computed<RowField[]>(() => {
  if (!row.value) return []
  if (list.value === 'sauces') {
    const use = session.uses.find((u) => u.key === row.value.use)
    return sauceFields(use, sauceOptions.value, named(session.uses), named(session.grades))
  }
  if (list.value === 'solids') return solidFields(ingredients.value, session.ways)
  if (list.value === 'toppings') return toppingFields(ingredients.value)
  if (list.value === 'rounds') return roundFields
  return props.part === 'vessel' ? vesselFields(row.value.shape) : plateFields
})
function change(key: string, value: string): void {
  void props.dish.edit((d) => {
    const target = at.value ? d[list.value][number.value] : props.part === 'vessel' ? d.vessel : d
    if (key === 'mm') {
      const mm = Number(value.trim().replace(',', '.'))
      target.per_ml = value.trim() === '' ? '' : Number.isFinite(mm) ? mm / 10 : value
    } else target[key] = value
    // What is counted weighs what its pieces weigh; what is weighed is not counted any more.
    if (list.value === 'solids' && key === 'grams') {
      delete target.pieces
    }
    if (list.value === 'solids' && key === 'pieces' && !target.piece_g) {
      target.piece_g = session.ingredients.get(target.ingredient)?.piece_g || target.grams
    }
    if (props.part === 'vessel' && key === 'depth_cm') delete target.holds_g
  }, `${props.part}.${key}`)
}
function remove(): void {
  void props.dish.edit((d) => {
    if (at.value) d[list.value].splice(number.value, 1)
    else d.vessel = null
  })
  emit('gone')
}
const yours = computed(() => session.pans.map((p) => ({ value: p.name, label: p.name })))
function takeVessel(name: string): void {
  const pan = session.pans.find((p) => p.name === name)
  if (!pan) return
  const { shape, diameter_cm, depth_cm, width_cm } = pan
  void props.dish.edit((d) => {
    d.vessel = { name, shape, diameter_cm, depth_cm, portions: d.vessel?.portions ?? 8 }
    if (width_cm) d.vessel.width_cm = width_cm
  })
}
</script>

<template>
  <div v-if="row" class="part" aria-live="polite">
    <RowFields
      :fields="fields"
      :row="asShown"
      :number="at ? number + 1 : undefined"
      :remove="at || part === 'vessel' ? 'Take it out' : undefined"
      @change="change"
      @remove="remove"
    />
    <NSelect
      v-if="part === 'vessel'"
      class="yours"
      :value="null"
      placeholder="one of yours…"
      :options="yours"
      aria-label="One of your vessels"
      @update:value="takeVessel"
    />
    <ProblemLine
      :problem="at || part === 'vessel' ? dish.problemAt(part) : null"
      :subject="dish.problemAt(part)?.field.split('.').pop()"
    />
  </div>
</template>

<style scoped>
.part {
  display: flex;
  flex-wrap: wrap;
  gap: 8px;
  align-items: end;
}
.yours {
  flex: 0 1 240px;
}
</style>
