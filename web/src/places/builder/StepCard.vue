<script setup lang="ts">
/** Middle: one step of the sauce, its amounts editable in place, its cue, what it leads to. */
import { NButton, NSelect } from 'naive-ui'
import { computed } from 'vue'
import type { Schemas } from '@/api/client'
import AmountField, { type TypedAmount } from '@/parts/AmountField.vue'
import { amount, grams } from '@/parts/format'
import { useSession } from '@/shell/session'
import type { Draft, LooseSheet } from './draft'
import NumberField from './NumberField.vue'
import { colours, heats, isToSalt, stops } from './steps'

const props = defineProps<{
  draft: Draft
  index: number
  step: LooseSheet
  card?: Schemas['CardOut']
  state?: Schemas['StateOut']
  chosen: boolean
  last: boolean
}>()
const emit = defineEmits<{ choose: []; move: [by: number]; remove: [] }>()
const session = useSession()

const at = computed(() => `steps[${props.index}]`)
const problem = (field: string) => props.draft.problemAt(`${at.value}.${field}`)
const ownProblem = computed(() => {
  const shown = ['amount', 'fat.amount', 'flour.amount', 'minutes', 'to.share', 'to.mass', 'to.volume']
  const found = props.draft.problems.value.find((p) => p.field === at.value || p.field.startsWith(`${at.value}.`))
  if (!found || shown.some((field) => found.field.startsWith(`${at.value}.${field}`))) return null
  return found
})

type Row = { field: string; part: LooseSheet; spoons?: string; name: string }
const rows = computed<Row[]>(() => {
  const row = (field: string, part: LooseSheet): Row => {
    const weighed = props.card?.weighed.find((w) => w.field === `${field}amount`)
    const spoons = weighed?.spoons && weighed.spoons.unit !== part.amount.unit ? amount(weighed.spoons) : undefined
    return {
      field,
      part,
      name: session.ingredients.get(part.ingredient)?.name ?? part.ingredient,
      spoons,
    }
  }
  if (props.step.op === 'roux') return [row('fat.', props.step.fat), row('flour.', props.step.flour)]
  if (props.step.amount && !isToSalt(props.step.amount)) return [row('', props.step)]
  return []
})
const toSalt = computed(() => (isToSalt(props.step.amount) ? props.step.amount.to_salt_pct : undefined))
const saltAmount = computed(() => (toSalt.value === undefined ? undefined : props.card?.weighed[0]))
const stop = computed(() => {
  const to = props.step.to
  if (to === 'nearly-dry') return 'nearly-dry'
  return ['mass', 'volume'].find((key) => to?.[key]) ?? 'share'
})

/** Typing an amount leaves the finished sauce in view, where its consequence shows. */
function chooseUnlessEditing(event: MouseEvent): void {
  if (!(event.target as HTMLElement).closest('input, .n-base-selection')) emit('choose')
}
function change(write: (step: LooseSheet) => void, tag: string): void {
  void props.draft.edit((s) => write(s.steps[props.index]), `${props.index}.${tag}`)
}
function setAmount(field: string, value: TypedAmount | string): void {
  change((step) => {
    const part = field ? step[field.slice(0, -1)] : step
    part.amount = value
  }, `${field}amount`)
}
function setIngredient(field: string, key: string): void {
  change((step) => {
    const part = field ? step[field.slice(0, -1)] : step
    part.ingredient = key
  }, '')
}
function setStop(kind: string): void {
  change((step) => {
    const state = props.state
    if (kind === 'nearly-dry') step.to = 'nearly-dry'
    else if (kind === 'mass') step.to = { mass: { value: Math.round(state?.mass_g ?? 500), unit: 'g' } }
    else if (kind === 'volume') step.to = { volume: { value: Math.round(state?.volume_ml ?? 500), unit: 'mL' } }
    else step.to = { share: 0.7 }
  }, '')
}
const choices = computed(() => {
  const rank = (role: string) => {
    if (props.step.op === 'melt') return role === 'cheese' ? 0 : 1
    if (props.step.op === 'season') return ['spice', 'seasoning', 'salt', 'acid'].includes(role) ? 0 : 1
    return 0
  }
  return [...session.ingredients.values()]
    .sort((a, b) => rank(a.role) - rank(b.role))
    .map((row) => ({ value: row.key, label: row.name }))
})
const fatOrFlour = (field: string) =>
  choices.value.filter((choice) => {
    const role = session.ingredients.get(choice.value)?.role
    return field === 'fat.' ? role === 'fat' : field === 'flour.' ? role === 'flour' : true
  })
</script>

<template>
  <li
    class="step"
    :class="{ chosen, wrong: draft.problemAt(at) }"
    :aria-current="chosen ? 'step' : undefined"
    @click="chooseUnlessEditing"
  >
    <button class="dot" :aria-label="`Step ${index + 1}, ${card?.title ?? step.op}: show the pot after it`">
      {{ index + 1 }}
    </button>
    <div class="body">
      <header>
        <h3>{{ card?.title ?? step.op }}</h3>
        <span v-if="state" class="leads quiet">
          <b v-if="state.grade">{{ session.gradeName(state.grade) }}</b>
          {{ grams(state.mass_g) }}
        </span>
      </header>

      <div v-for="row in rows" :key="row.field" class="row">
        <AmountField
          :amount="row.part.amount"
          :label="`${row.name}, amount`"
          :problem="problem(`${row.field}amount`)"
          @change="setAmount(row.field, $event)"
        />
        <span v-if="!chosen" class="name">
          {{ row.name }} <span v-if="row.spoons" class="quiet">· {{ row.spoons }}</span>
        </span>
        <span v-else class="name">
          <NSelect
            :value="row.part.ingredient"
            :options="fatOrFlour(row.field)"
            filterable
            :aria-label="`${row.name}, ingredient`"
            @update:value="setIngredient(row.field, $event)"
          />
          <span v-if="row.spoons" class="quiet">{{ row.spoons }}</span>
        </span>
      </div>

      <div v-if="toSalt !== undefined" class="row wrap">
        <p class="salt">
          <b>{{ saltAmount ? amount(saltAmount.amount) : 'none' }}</b>
          <span v-if="saltAmount" class="name">
            {{ saltAmount.name }} <span v-if="saltAmount.spoons" class="quiet">· {{ amount(saltAmount.spoons) }}</span>
          </span>
        </p>
        <NumberField
          :value="toSalt"
          label="up to, in 100 g"
          unit="g"
          :problem="problem('amount')"
          @change="change((s) => (s.amount = { to_salt_pct: $event }), 'salt')"
        />
      </div>

      <div v-if="step.op === 'simmer' || (step.op === 'reduce' && (chosen || stop !== 'nearly-dry')) || (step.op === 'roux' && chosen)" class="row wrap">
        <template v-if="step.op === 'reduce'">
          <NumberField
            v-if="stop === 'share'"
            :value="typeof step.to.share === 'number' ? step.to.share * 100 : step.to.share"
            label="boil down to"
            unit="% of its weight"
            :problem="problem('to')"
            @change="change((s) => (s.to = { share: Number.isFinite(Number($event.replace(',', '.'))) && $event.trim() ? Number($event.replace(',', '.')) / 100 : $event }), 'share')"
          />
          <AmountField
            v-else-if="stop !== 'nearly-dry'"
            :amount="step.to[stop]"
            label="Boil down to"
            :problem="problem('to')"
            @change="change((s) => (s.to = { [stop]: $event }), 'to')"
          />
          <label v-if="chosen" class="select">
            <span class="label">stop at</span>
            <NSelect :value="stop" :options="stops" aria-label="Stop at" @update:value="setStop" />
          </label>
        </template>
        <NumberField
          v-else
          bare
          :value="step.minutes"
          label="Minutes"
          unit="min"
          :problem="problem('minutes')"
          @change="change((s) => (s.minutes = $event), 'minutes')"
        />
        <label v-if="chosen && step.op !== 'roux'" class="select">
          <span class="label">heat</span>
          <NSelect
            :value="step.heat"
            :options="heats"
            aria-label="Heat"
            @update:value="(v: string) => change((s) => (s.heat = v), '')"
          />
        </label>
        <label v-if="chosen && step.op === 'roux'" class="select">
          <span class="label">colour</span>
          <NSelect
            :value="step.colour"
            :options="colours"
            aria-label="Colour of the roux"
            @update:value="(v: string) => change((s) => (s.colour = v), '')"
          />
        </label>
      </div>

      <p v-if="card && chosen" class="do">{{ card.do }}</p>
      <p v-if="card" class="cue">{{ card.cue }}</p>
      <p v-for="remark in card?.remarks ?? []" :key="remark" class="warning">{{ remark }}</p>
      <p v-if="ownProblem" class="problem" role="alert">{{ ownProblem.message }}. {{ ownProblem.remedy }}.</p>

      <div v-if="chosen" class="tools no-print">
        <NButton quaternary :disabled="index === 0" :aria-label="`Move step ${index + 1} up`" @click.stop="emit('move', -1)">↑ Earlier</NButton>
        <NButton quaternary :disabled="last" :aria-label="`Move step ${index + 1} down`" @click.stop="emit('move', 1)">↓ Later</NButton>
        <NButton quaternary :aria-label="`Take step ${index + 1} out`" @click.stop="emit('remove')">Take out</NButton>
      </div>
    </div>
  </li>
</template>

<style scoped>
.step {
  display: grid;
  grid-template-columns: 44px 1fr;
  gap: 8px;
  padding: 8px 12px 8px 6px;
  border-radius: 12px;
  border: 2px solid transparent;
  position: relative;
  list-style: none;
}
.step::before {
  content: '';
  position: absolute;
  left: 27px;
  top: 0;
  bottom: -6px;
  width: 2px;
  background: var(--fog3);
}
.step:last-child::before {
  bottom: 50%;
}
.step:first-child::before {
  top: 20px;
}
.chosen {
  background: var(--fog0);
  border-color: var(--ink2);
}
.wrong {
  border-color: var(--danger);
}
.dot {
  position: relative;
  width: 44px;
  height: 44px;
  border: 2px solid var(--fog3);
  border-radius: 50%;
  background: var(--white);
  font: 700 18px var(--text);
  cursor: pointer;
}
.chosen .dot {
  background: var(--ink);
  border-color: var(--ink);
  color: var(--white);
}
header {
  display: flex;
  justify-content: space-between;
  align-items: baseline;
  gap: 10px;
}
h3 {
  font-size: 18px;
}
.leads {
  font-size: 14px;
  white-space: nowrap;
}
.row {
  display: flex;
  align-items: center;
  gap: 10px;
  min-height: 46px;
}
.row > .amount {
  flex: none;
  min-width: 112px;
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
.select {
  flex: 1 1 150px;
  max-width: 220px;
}
.salt {
  display: flex;
  flex: 1 1 260px;
  align-items: baseline;
  gap: 10px;
  min-height: 44px;
}
.salt b {
  min-width: 112px;
  padding-right: 9px;
  font-size: 22px;
  text-align: right;
}
.do {
  font-size: 16px;
}
.cue {
  color: var(--ink2);
  font-size: 15px;
}
.cue::before {
  content: '◦ ';
  color: var(--russet);
  font-weight: 800;
}
.warning {
  margin-top: 4px;
  padding: 4px 10px;
  border-left: 4px solid var(--butter);
  background: var(--butter-wash);
  font-size: 15px;
}
.tools {
  display: flex;
  gap: 4px;
  margin: 2px -12px -2px;
}
</style>
