<script setup lang="ts">
/** Middle: one step of the sauce, its amounts editable in place, its cue, what it leads to. */
import { NButton, NSelect, NSwitch } from 'naive-ui'
import { computed } from 'vue'
import type { Schemas } from '@/api/client'
import AmountField, { type TypedAmount } from '@/parts/AmountField.vue'
import { amount, grams } from '@/parts/format'
import { useSession } from '@/shell/session'
import type { Draft, LooseSheet } from './draft'
import NumberField from '@/parts/NumberField.vue'
import ReduceStop from './ReduceStop.vue'
import { formOf, isToSalt, type Knob } from './steps'

const props = defineProps<{
  draft: Draft
  index: number
  step: LooseSheet
  card?: Schemas['Card']
  state?: Schemas['Figures']
  along?: Schemas['Along']
  chosen: boolean
  last: boolean
}>()
const emit = defineEmits<{
  choose: []
  move: [by: number]
  remove: []
  missing: [what: { key: string; name: string }]
}>()
const session = useSession()

const at = computed(() => `steps[${props.index}]`)
const form = computed(() => formOf(props.step.op))
const problem = (field: string) => props.draft.problemAt(`${at.value}.${field}`)

type Row = { part: string; holder: LooseSheet; name: string; spoons?: string; roles: string[]; all?: string }
const rows = computed<Row[]>(() =>
  form.value.rows.flatMap(({ part, roles, all }): Row[] => {
    const holder = part ? props.step[part] : props.step
    if (isToSalt(holder?.amount)) return []
    if (!holder?.amount) {
      // All there is of something: what was lifted out, or every piece.
      const named = session.ingredients.get(holder?.ingredient)?.name
      if (!holder || (!all && !named)) return []
      return [{ part, holder, name: named ? `${named}, all of it` : all!, roles, all }]
    }
    const field = part ? `${part}.amount` : 'amount'
    const weighed = props.card?.weighed.find((w) => w.field === field)
    const byHand = Boolean(holder.amount.measure)
    const other = byHand ? weighed && grams(weighed.grams) : weighed?.spoons && amount(weighed.spoons)
    const spoons = byHand || weighed?.spoons?.unit !== holder.amount.unit ? (other ?? undefined) : undefined
    const name = session.ingredients.get(holder.ingredient)?.name ?? holder.sauce?.name ?? holder.ingredient
    return [{ part, holder, name, spoons, roles }]
  }),
)
const toSalt = computed(() => (isToSalt(props.step.amount) ? props.step.amount.to_salt_pct : undefined))
const saltAmount = computed(() => (toSalt.value === undefined ? undefined : props.card?.weighed[0]))
const reduces = computed(() => props.step.op === 'reduce')
const knobs = computed(() => form.value.knobs.filter((knob) => knob.always || props.chosen))
/** A problem of this step that no field here shows. */
const ownProblem = computed(() => {
  const found = props.draft.problems.value.find((p) => p.field === at.value || p.field.startsWith(`${at.value}.`))
  if (!found) return null
  const shown = [
    ...rows.value.map((row) => (row.part ? `${row.part}.amount` : 'amount')),
    ...knobs.value.map((knob) => knob.key),
    ...(toSalt.value === undefined ? [] : ['amount']),
    ...(reduces.value && props.step.to !== 'nearly-dry' ? ['to'] : []),
  ]
  return shown.some((field) => found.field.startsWith(`${at.value}.${field}`)) ? null : found
})

function change(write: (step: LooseSheet) => void, tag: string): void {
  void props.draft.edit((s) => write(s.steps[props.index]), tag && `${props.index}.${tag}`)
}
function setAmount(part: string, value: TypedAmount | string): void {
  change((step) => ((part ? step[part] : step).amount = value), `${part}.amount`)
}
function setIngredient(part: string, key: string): void {
  change((step) => ((part ? step[part] : step).ingredient = key || null), '')
}
/** Percent as typed to the share the sheet holds; what is no number goes on as typed. */
function share(text: string): number | string {
  const value = Number(text.trim().replace(',', '.'))
  return text.trim() && Number.isFinite(value) ? value / 100 : text
}
const percent = (value: unknown) => (typeof value === 'number' ? value * 100 : (value as string))
function setKnob(knob: Knob, text: string): void {
  const empty = text.trim() === ''
  change((step) => (step[knob.key] = empty ? null : knob.kind === 'percent' ? share(text) : text), knob.key)
}
/** What counts where nothing is given: food back in takes its minutes from how it comes. */
function usual(knob: Knob): string | undefined {
  const seconds = props.card?.timer_s
  return props.step.op === 'return' && knob.key === 'minutes' && seconds
    ? String(Math.round(seconds / 6) / 10)
    : undefined
}
/** A switch that is on while the entry is not there. */
function setAbsent(knob: Knob, absent: boolean): void {
  change((step) => (step[knob.key] = absent ? null : form.value.fresh()[knob.key]), '')
}
const choices = (roles: string[], all?: string) => [
  ...(all ? [{ value: '', label: all }] : []),
  ...[...session.ingredients.values()]
    .sort((a, b) => Number(roles.includes(b.role)) - Number(roles.includes(a.role)))
    .map((row) => ({ value: row.key, label: row.name })),
]

/** Typing an amount leaves the finished sauce in view, where its consequence shows. */
function chooseUnlessEditing(event: MouseEvent): void {
  if (!(event.target as HTMLElement).closest('input, .n-base-selection, .n-switch')) emit('choose')
}
</script>

<template>
  <li
    class="step"
    :class="{ chosen, wrong: draft.problemAt(at) }"
    :aria-current="chosen ? 'step' : undefined"
    @click="chooseUnlessEditing"
  >
    <button class="dot" :aria-label="`Step ${index + 1}, ${card?.title ?? form.name}: show the pot after it`">
      {{ index + 1 }}
    </button>
    <div class="body">
      <header>
        <h3>{{ card?.title ?? form.name }}</h3>
        <span v-if="state" class="leads quiet">
          <b v-if="state.grade">{{ session.gradeName(state.grade) }}</b>
          {{ grams(state.total_g ?? state.mass_g) }}
        </span>
      </header>

      <div v-for="row in rows" :key="row.part" class="row">
        <AmountField
          v-if="row.holder.amount"
          :amount="row.holder.amount"
          :label="`${row.name}, amount`"
          :problem="problem(row.part ? `${row.part}.amount` : 'amount')"
          @change="setAmount(row.part, $event)"
        />
        <span class="name">
          <NSelect
            v-if="chosen && (row.holder.ingredient || row.all)"
            :value="row.holder.ingredient ?? ''"
            :options="choices(row.roles, row.all)"
            filterable
            :aria-label="`${row.name}, ingredient`"
            @update:value="setIngredient(row.part, $event)"
          />
          <template v-else>{{ row.name }}</template>
          <span v-if="row.spoons" class="quiet"><template v-if="!chosen"> · </template>{{ row.spoons }}</span>
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

      <template v-if="step.op === 'correct'">
        <p v-for="held in card?.weighed ?? []" :key="held.ingredient" class="salt">
          <b>{{ amount(held.amount) }}</b>
          <span class="name"
            >{{ held.name }}
            <span class="quiet">· held back{{ held.spoons ? `, ${amount(held.spoons)}` : '' }}</span></span
          >
        </p>
      </template>
      <ReduceStop
        v-if="reduces"
        :step="step"
        :state="state"
        :along="along"
        :problem="problem('to')"
        :chosen="chosen"
        @stop="(to, tag) => change((s) => (s.to = to), tag)"
      />
      <div v-if="knobs.length" class="row wrap">
        <template v-for="knob in knobs" :key="knob.key">
          <label v-if="knob.kind === 'choice'" class="select">
            <span class="label">{{ knob.label.toLowerCase() }}</span>
            <NSelect
              :value="step[knob.key] ?? knob.options![0]!.value"
              :options="knob.options"
              :aria-label="knob.label"
              @update:value="(v: string) => change((s) => (s[knob.key] = v), '')"
            />
          </label>
          <label v-else-if="knob.kind === 'absent'" class="switch">
            <NSwitch
              :value="step[knob.key] == null"
              :aria-label="knob.label"
              @update:value="(v: boolean) => setAbsent(knob, v)"
            />
            {{ knob.label }}
          </label>
          <label v-else-if="knob.kind === 'switch'" class="switch">
            <NSwitch
              :value="Boolean(step[knob.key])"
              :aria-label="knob.label"
              @update:value="(v: boolean) => change((s) => (s[knob.key] = v), '')"
            />
            {{ knob.label }}
          </label>
          <NumberField
            v-else
            :bare="knob.bare"
            :value="knob.kind === 'percent' ? percent(step[knob.key]) : step[knob.key]"
            :label="knob.label"
            :unit="knob.unit"
            :placeholder="usual(knob)"
            :problem="problem(knob.key)"
            @change="setKnob(knob, $event)"
          />
        </template>
      </div>

      <p v-if="card && chosen" class="do">{{ card.do }}</p>
      <ol v-if="card?.lines?.length && chosen" class="lines">
        <li v-for="line in card.lines" :key="line">{{ line }}</li>
      </ol>
      <p v-if="card" class="cue">{{ card.cue }}</p>
      <p v-for="remark in card?.remarks ?? []" :key="remark" class="warning">{{ remark }}</p>
      <p v-if="ownProblem" class="problem" role="alert">{{ ownProblem.message }}. {{ ownProblem.remedy }}.</p>

      <div v-if="chosen" class="tools no-print">
        <NButton
          quaternary
          :disabled="index === 0"
          :aria-label="`Move step ${index + 1} up`"
          @click.stop="emit('move', -1)"
          >↑ Earlier</NButton
        >
        <NButton quaternary :disabled="last" :aria-label="`Move step ${index + 1} down`" @click.stop="emit('move', 1)"
          >↓ Later</NButton
        >
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
.select {
  flex: 1 1 150px;
  max-width: 220px;
}
.switch {
  display: flex;
  align-items: center;
  gap: 8px;
  min-height: 44px;
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
.do {
  font-size: 16px;
}
.lines {
  margin: 2px 0;
  padding-left: 22px;
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
