<script setup lang="ts">
/** The step at the stove: what to weigh, what to do, what to look for, its timer. */
import { computed, ref } from 'vue'
import type { Schemas } from '@/api/client'
import { amount, amountValue, grams, inParts, inUs, scaleReads, told, unitName } from '@/parts/format'
import WayDown from '@/parts/WayDown.vue'
import CorrectHere from './CorrectHere.vue'
import StepTimer from './StepTimer.vue'
import WentIn from './WentIn.vue'

const props = defineProps<{
  batch: Schemas['BatchOut']
  card: Schemas['Card']
  /** Seconds left on the timer that runs; null where none does. */
  left: number | null
  /** Its minutes are told beside: its timer rings when it may be there. */
  followed?: boolean
  /** Seconds the timer of the step runs. */
  timerS: number | null
  /** In since the step began, g, by the scale under the pot. */
  poured?: number | null
}>()
const emit = defineEmits<{
  timer: []
  put: [field: string, grams: number]
  typed: [field: string, amount: string, unit: string]
  afterAll: []
  corrected: [grams: number, viscosity: number]
  poured: [field: string, how: 'jug' | 'scale' | 'level', after: string, before: string]
}>()
const correcting = ref<string | null>(null)
function done(say: () => void): void {
  correcting.value = null
  say()
}
/** Where one thing is weighed, the scale tells how much of it is in. */
const weighing = computed(() => {
  const [only, ...more] = props.card.weighed
  const grams = Math.round(props.poured ?? 0)
  return only && !more.length && grams >= 3 ? { field: only.field, grams } : null
})
const asPut = computed(
  () =>
    new Set(
      props.batch.acts
        .filter((act) => ['put', 'poured'].includes(act.kind) && act.step === props.batch.step)
        .map((act) => String(act.data.field)),
    ),
)
/** What was typed and is on its way: the server tells it in grams. */
const onItsWay = computed(() => {
  const puts = props.batch.acts.filter((act) => act.kind === 'put' && act.step === props.batch.step)
  return new Map(
    puts.filter((act) => act.data.grams === undefined).map((act) => [String(act.data.field), String(act.data.amount)]),
  )
})
const state = computed(() => props.batch.plan?.states[props.batch.step] ?? null)
const down = computed(() => props.batch.plan?.along?.find((one) => one.step === props.batch.step))
/** With nothing else to see, the timer is the step; else it stands at the head of what is beside. */
const alone = computed(() => !props.card.weighed.length && !down.value && !props.followed)
const corrects = computed(() => props.batch.sheet.steps?.[props.batch.step]?.op === 'correct' && !props.card.left_out)
</script>

<template>
  <section class="now" aria-live="polite">
    <span class="label"
      >Step {{ batch.step + 1 }} of {{ batch.steps }}
      <b v-if="card.hands === 'all'" class="throughout">Stay at it</b></span
    >
    <h2>{{ card.title }}</h2>
    <button v-if="card.left_out" class="press all" @click="emit('afterAll')">Do it after all</button>
    <CorrectHere
      v-if="corrects"
      :key="batch.step"
      :batch="batch.id"
      :revision="batch.revision"
      :held="card.weighed"
      :words="card.do"
      @corrected="(grams, viscosity) => emit('corrected', grams, viscosity)"
    />
    <ul v-else class="amounts">
      <li v-for="w in card.weighed" :key="w.field">
        <WentIn
          v-if="correcting === w.field"
          :name="w.name"
          :tare-g="batch.plan.pan.tare_g"
          :unit="w.amount.measure?.name ?? w.amount.unit"
          @put="done(() => emit('typed', w.field, $event, w.amount.measure?.name ?? w.amount.unit))"
          @poured="(how, after, before) => done(() => emit('poured', w.field, how, after, before))"
          @close="correcting = null"
        />
        <button
          v-else
          class="much"
          :title="`Press where another amount of ${w.name} went in`"
          :aria-label="`${told(w.amount)} ${w.name}: change what went in`"
          @click="correcting = w.field"
        >
          <b v-if="onItsWay.has(w.field)">{{ onItsWay.get(w.field) }}</b>
          <b v-else-if="inUs(w.amount)"
            >{{ inUs(w.amount) }} <small>({{ amount(w.amount) }})</small></b
          >
          <b v-else
            ><template v-for="(part, n) in inParts(w.amount)" :key="part.unit"
              ><small v-if="n"> + </small>{{ amountValue(part) }} <small>{{ unitName(part) }}</small></template
            ></b
          >
        </button>
        <span
          ><em v-if="asPut.has(w.field)">went in: </em>{{ w.name
          }}<small v-if="w.amount.measure?.name === 'g'" class="quiet">
            · give or take {{ grams(w.amount.measure.spread * w.grams) }}</small
          ><small v-else-if="w.amount.measure" class="quiet"> · {{ amount(w.amount) }}</small
          ><small v-else-if="w.spoons && w.spoons.unit !== w.amount.unit" class="quiet">
            · {{ amount(w.spoons) }}</small
          ></span
        >
      </li>
    </ul>
    <p v-if="weighing" class="poured" aria-live="polite">
      <b>{{ scaleReads(weighing.grams) }}</b> in, by the scale
      <button class="press" @click="emit('put', weighing.field, weighing.grams)">Take it so</button>
    </p>
    <p v-if="!corrects" class="do">{{ card.do }}</p>
    <ol v-if="card.lines?.length" class="lines">
      <li v-for="line in card.lines" :key="line">{{ line }}</li>
    </ol>
    <p class="cue"><span class="label">Look for</span>{{ card.cue }}</p>
    <p v-if="batch.step === 0 && batch.plan.pan_told" class="warning">{{ batch.plan.pan_told }}.</p>
    <p v-for="remark in card.remarks" :key="remark" class="warning">{{ remark }}</p>
    <StepTimer v-if="alone" alone :left="left" :seconds="timerS" @press="emit('timer')" />
    <WayDown v-if="down && !followed" :along="down" :ends-g="state?.total_g ?? state?.mass_g" />
  </section>
</template>

<style scoped>
.now {
  display: flex;
  flex-direction: column;
  gap: 8px;
}
h2 {
  font-size: 36px;
}
.amounts {
  margin: 0;
  padding: 0;
  list-style: none;
}
.amounts li {
  display: flex;
  flex-wrap: wrap;
  align-items: baseline;
  gap: 4px 18px;
  font-size: 26px;
}
.amounts b {
  min-width: 190px;
  font-size: 76px;
  line-height: 1.1;
  font-weight: 750;
}
.amounts b small {
  font-size: 38px;
}
.much {
  padding: 0;
  border: 0;
  border-bottom: 3px dotted var(--fog4);
  background: none;
  text-align: left;
  cursor: pointer;
}
.poured {
  font-size: 22px;
}
.poured b {
  font-size: 54px;
  line-height: 1.1;
}
.poured button {
  margin-left: 10px;
}
.throughout {
  margin-left: 10px;
  padding: 2px 10px;
  border-radius: 6px;
  background: var(--russet);
  color: var(--white);
}
em {
  font-style: normal;
  color: var(--russet);
}
.do {
  font-size: 24px;
  line-height: 1.3;
}
.lines {
  margin: 0;
  font-size: 24px;
}
.cue {
  font-size: 21px;
}
.all {
  align-self: start;
}
.warning {
  font-size: 18px;
}
@media (max-width: 1100px) {
  h2 {
    font-size: 30px;
  }
  .do,
  .lines {
    font-size: 21px;
  }
  .cue {
    font-size: 20px;
  }
}
@media (max-width: 800px) {
  .amounts b {
    font-size: 54px;
    min-width: 0;
  }
  h2 {
    font-size: 28px;
  }
  .do {
    font-size: 20px;
  }
}
</style>
