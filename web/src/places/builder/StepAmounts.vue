<script setup lang="ts">
/** What a step puts in: each amount to type over, the ingredient to choose, what the salt comes to. */
import { NButton, NSelect } from 'naive-ui'
import { computed } from 'vue'
import type { Problem, Schemas } from '@/api/client'
import AmountField from '@/parts/AmountField.vue'
import { amount, told } from '@/parts/format'
import NumberField from '@/parts/NumberField.vue'
import { found, ingredientOption } from '@/parts/options'
import { useSession } from '@/shell/session'
import type { LooseSheet } from './draft'
import type { Row } from './rows'
import { isToSalt } from '@/parts/steps'

const props = defineProps<{
  step: LooseSheet
  rows: Row[]
  card?: Schemas['Card']
  chosen: boolean
  problemOf: (field: string) => Problem | null
}>()
const emit = defineEmits<{
  change: [write: (step: LooseSheet) => void, tag: string]
  missing: [what: { key: string; name: string }]
}>()
const session = useSession()

const toSalt = computed(() => (isToSalt(props.step.amount) ? props.step.amount.to_salt_pct : undefined))
const saltAmount = computed(() => (toSalt.value === undefined ? undefined : props.card?.weighed[0]))
const heldBack = computed(() => (props.step.op === 'correct' ? (props.card?.weighed ?? []) : []))

const holderIn = (step: LooseSheet, part: string) => (part ? step[part] : step)
const setAmount = ({ part }: Row, value: unknown) =>
  emit('change', (step) => (holderIn(step, part).amount = value), `${part}.amount`)
const setIngredient = ({ part }: Row, key: string) =>
  emit('change', (step) => (holderIn(step, part).ingredient = key || null), '')
/** Whether the ingredient is a choice just now: what a step is about may be changed while it is chosen. */
const choosing = (row: Row) => props.chosen && Boolean(row.holder.ingredient || row.all)
const choices = ({ roles, all }: Row) => [
  ...(all ? [{ value: '', label: all }] : []),
  ...[...session.ingredients.values()]
    .sort((a, b) => Number(roles.includes(b.role)) - Number(roles.includes(a.role)))
    .map(ingredientOption),
]
</script>

<template>
  <div v-for="row in rows" :key="row.part" class="row">
    <!-- Emptied while it is typed over it is still there. -->
    <AmountField
      v-if="row.holder.amount !== undefined && row.holder.amount !== null"
      :amount="row.holder.amount"
      :label="`${row.name}, amount`"
      :problem="problemOf(row.field)"
      @change="setAmount(row, $event)"
    />
    <span class="name">
      <NSelect
        v-if="choosing(row)"
        :value="row.holder.ingredient ?? ''"
        :options="choices(row)"
        filterable
        :filter="found"
        :aria-label="`${row.name}, ingredient`"
        @update:value="setIngredient(row, $event)"
      />
      <template v-else>{{ row.name }}</template>
      <span v-if="row.spoons" class="quiet"><template v-if="!choosing(row)"> · </template>{{ row.spoons }}</span>
    </span>
    <NButton
      v-if="chosen && row.holder.ingredient && row.holder.amount"
      quaternary
      class="no-print"
      :aria-label="`I haven't got ${row.name}`"
      @click.stop="emit('missing', { key: row.holder.ingredient, name: row.name })"
    >
      Haven't got it
    </NButton>
  </div>

  <div v-if="toSalt !== undefined" class="row wrap">
    <p class="salt">
      <b>{{ saltAmount ? told(saltAmount.amount) : 'none' }}</b>
      <span v-if="saltAmount" class="name">
        {{ saltAmount.name }} <span v-if="saltAmount.spoons" class="quiet">· {{ amount(saltAmount.spoons) }}</span>
      </span>
    </p>
    <NumberField
      :value="toSalt"
      label="up to, in 100 g"
      unit="g"
      :problem="problemOf('amount')"
      @change="emit('change', (s) => (s.amount = { to_salt_pct: $event }), 'salt')"
    />
  </div>

  <p v-for="held in heldBack" :key="held.ingredient" class="salt">
    <b>{{ told(held.amount) }}</b>
    <span class="name">
      {{ held.name }}
      <span class="quiet">· held back{{ held.spoons ? `, ${amount(held.spoons)}` : '' }}</span>
    </span>
  </p>
</template>

<style scoped>
.row {
  display: flex;
  align-items: center;
  gap: 10px;
  min-height: 46px;
}
.row > .amount {
  flex: none;
  min-width: 144px;
}
.wrap {
  flex-wrap: wrap;
  align-items: end;
}
.name {
  flex: 1;
  min-width: 0;
  font-size: 18px;
}
.name .quiet {
  font-size: 15px;
}
.salt {
  display: flex;
  flex: 1 1 260px;
  align-items: baseline;
  gap: 10px;
  min-height: 44px;
}
.salt b {
  min-width: 144px;
  padding-right: 9px;
  font-size: 22px;
  text-align: right;
}
</style>
