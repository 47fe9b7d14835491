<script setup lang="ts">
/** Middle: one step of the sauce, its amounts editable in place, its cue, what it leads to. */
import { NButton } from 'naive-ui'
import { computed } from 'vue'
import type { Schemas } from '@/api/client'
import { grams } from '@/parts/format'
import { useSession } from '@/shell/session'
import type { Draft, LooseSheet } from './draft'
import InsidePot from './InsidePot.vue'
import ReduceStop from './ReduceStop.vue'
import { rowsOf } from './rows'
import StepAmounts from './StepAmounts.vue'
import StepKnobs from './StepKnobs.vue'
import { formOf, isToSalt } from '@/parts/steps'
import ProblemLine from '@/parts/ProblemLine.vue'

const props = defineProps<{
  draft: Draft
  index: number
  step: LooseSheet
  card?: Schemas['Card']
  state?: Schemas['Figures']
  along?: Schemas['Along']
  inside?: Schemas['CardsInside']
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
const problemOf = (field: string) => props.draft.problemAt(`${at.value}.${field}`)
const rows = computed(() => rowsOf(props.step, props.card, (key) => session.ingredients.get(key)?.name))
const reduces = computed(() => props.step.op === 'reduce')
const salted = computed(() => session.ingredients.get(props.step.ingredient)?.gives_salt ?? false)
const knobs = computed(() =>
  form.value.knobs.filter((knob) => (knob.always || props.chosen) && (!knob.forSalted || salted.value)),
)
/** A problem of this step that no field here shows. */
const ownProblem = computed(() => {
  const found = props.draft.problemAt(at.value)
  if (!found) return null
  const shown = [
    ...rows.value.map((row) => row.field),
    ...knobs.value.map((knob) => knob.key),
    ...(isToSalt(props.step.amount) ? ['amount'] : []),
    ...(props.inside && props.chosen ? ['sauce.steps'] : []),
    ...(reduces.value && props.step.to !== 'nearly-dry' ? ['to'] : []),
  ]
  return shown.some((field) => found.field.startsWith(`${at.value}.${field}`)) ? null : found
})

function change(write: (step: LooseSheet) => void, tag: string): void {
  void props.draft.edit((s) => write(s.steps[props.index]), tag && `${props.index}.${tag}`)
}
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
          <b v-if="state.cooked_out === false && state.grade_now">{{ session.gradeName(state.grade_now) }} now</b>
          <b v-else-if="state.grade">{{ session.gradeName(state.grade) }}</b>
          {{ grams(state.total_g ?? state.mass_g) }}
        </span>
      </header>

      <StepAmounts
        :step="step"
        :rows="rows"
        :card="card"
        :chosen="chosen"
        :problem-of="problemOf"
        @change="change"
        @missing="emit('missing', $event)"
      />
      <InsidePot
        v-if="inside"
        :pot="inside"
        :open="chosen"
        :problem-of="problemOf"
        @change="change"
        @missing="emit('missing', $event)"
      />
      <ReduceStop
        v-if="reduces"
        :step="step"
        :state="state"
        :along="along"
        :problem="problemOf('to')"
        :chosen="chosen"
        @stop="(to, tag) => change((s) => (s.to = to), tag)"
      />
      <StepKnobs
        v-if="knobs.length"
        :step="step"
        :knobs="knobs"
        :seconds="card?.timer_s"
        :problem-of="problemOf"
        @change="change"
      />

      <p v-if="card && chosen" class="do">{{ card.do }}</p>
      <ol v-if="card?.lines?.length && chosen" class="lines">
        <li v-for="line in card.lines" :key="line">{{ line }}</li>
      </ol>
      <p v-if="card" class="cue">{{ card.cue }}</p>
      <p v-for="remark in card?.remarks ?? []" :key="remark" class="warning remark">{{ remark }}</p>
      <ProblemLine :problem="ownProblem" />

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
.tools {
  display: flex;
  gap: 4px;
  margin: 2px -12px -2px;
}
.remark {
  margin-top: 4px;
  font-size: 15px;
}
</style>
