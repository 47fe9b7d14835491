<script setup lang="ts">
/** Cooking along: one step at a time, big enough for an elbow and an arm's length. */
import { useNow, useTitle } from '@vueuse/core'
import { NButton, NModal, useMessage } from 'naive-ui'
import { computed, h, onMounted, ref } from 'vue'
import { RouterLink, useRouter } from 'vue-router'
import { api, ask, Taken, type Schemas } from '@/api/client'
import { amount, amountValue, scaleReads, unitName } from '@/parts/format'
import FixIt from '@/parts/FixIt.vue'
import PotView from '@/parts/PotView.vue'
import SpoonBack from '@/parts/SpoonBack.vue'
import ThicknessRibbon from '@/parts/ThicknessRibbon.vue'
import WayDown from '@/parts/WayDown.vue'
import { useHob } from '@/shell/hob'
import { onKey } from '@/shell/keys'
import { useSession } from '@/shell/session'
import { clock, secondsLeft } from '@/shell/timer'
import CorrectHere from './CorrectHere.vue'
import Weighing from './Weighing.vue'

const props = defineProps<{ id: number }>()
const session = useSession()
const hob = useHob()
const router = useRouter()
const message = useMessage()
const batch = ref<Schemas['BatchOut'] | null>(null)
const trouble = ref('')
const path = { params: { path: { batch_id: props.id } } }

async function load(): Promise<void> {
  try {
    take(await ask(api.GET('/api/stove/{batch_id}', path)))
  } catch (error) {
    trouble.value = (error as Error).message
  }
}
function take(found: Schemas['BatchOut']): void {
  batch.value = found
  hob.setClock(found.now)
  trouble.value = ''
}
onMounted(load)
useTitle(computed(() => (batch.value ? `${batch.value.name} · stove` : 'Stove')))

const plan = computed(() => batch.value?.plan)
const atEnd = computed(() => Boolean(batch.value && batch.value.step >= batch.value.steps))
const card = computed(() => plan.value?.cards[batch.value?.step ?? 0])
const state = computed(() => plan.value?.states[batch.value?.step ?? 0] ?? null)
const before = computed(() => plan.value?.states[(batch.value?.step ?? 0) - 1]?.level_mm ?? null)
const down = computed(() => plan.value?.along?.find((one) => one.step === batch.value?.step))
const next = computed(() => plan.value?.cards[(batch.value?.step ?? 0) + 1])

const corrects = computed(() => batch.value?.sheet.steps?.[batch.value.step]?.op === 'correct')

const now = useNow({ interval: 250 })
const left = computed(() =>
  secondsLeft(batch.value?.timer_started_at, batch.value?.timer_s ?? 0, now.value.getTime() + hob.skewMs),
)
const running = computed(() => left.value !== null)

let working = false
async function change(work: () => Promise<Schemas['BatchOut']>): Promise<void> {
  if (working) return
  working = true
  try {
    take(await work())
  } catch (error) {
    if (error instanceof Taken) {
      await load()
      message.info('Moved on from another window; this is where the pot is.')
    } else {
      trouble.value = (error as Error).message
    }
  } finally {
    working = false
  }
  void hob.look().catch(() => undefined)
}
const go = (step: number) =>
  change(() =>
    ask(api.POST('/api/stove/{batch_id}/step', { ...path, body: { step, revision: batch.value!.revision } })),
  )
function forward(): void {
  if (batch.value && !atEnd.value) void go(batch.value.step + 1)
}
function back(): void {
  if (batch.value && batch.value.step > 0) void go(batch.value.step - 1)
}
function timer(): void {
  const seconds = running.value ? null : (card.value?.timer_s ?? null)
  if (!running.value && !seconds) return
  void change(() =>
    ask(api.POST('/api/stove/{batch_id}/timer', { ...path, body: { seconds, revision: batch.value!.revision } })),
  )
}
async function leave(): Promise<void> {
  await change(() => ask(api.POST('/api/stove/{batch_id}/leave', path)))
  const said = message.info(
    () =>
      h('span', [
        'Taken off, nothing written down. ',
        h(NButton, { size: 'small', onClick: () => void putBack(said) }, () => 'Put it back'),
      ]),
    { duration: 12_000 },
  )
  await router.push('/stove')
}
async function putBack(said: { destroy: () => void }): Promise<void> {
  said.destroy()
  await ask(api.POST('/api/stove/{batch_id}/put-back', path))
  await hob.look().catch(() => undefined)
  await router.push(`/stove/${props.id}`)
}
const fixing = ref(false)
async function mended(remedy: Schemas['Remedy'], sign: string): Promise<void> {
  const body = { sign, title: remedy.title, do: remedy.do, revision: batch.value!.revision }
  await change(() => ask(api.POST('/api/stove/{batch_id}/mended', { ...path, body })))
  fixing.value = false
}
onKey((key) => {
  if (!batch.value || batch.value.status !== 'on') return false
  if (key === ' ' || key === 'ArrowRight') forward()
  else if (key === 'Backspace' || key === 'ArrowLeft') back()
  else if (key === 't') timer()
  else if (key === 'f') fixing.value = true
  else return false
  return true
})
</script>

<template>
  <div v-if="batch && plan" class="batch">
    <header>
      <h1>{{ batch.name }}</h1>
      <RouterLink v-if="batch.service_id" class="for" :to="`/service/${batch.service_id}?part=sheet`"
        >to its service</RouterLink
      >
      <ol class="progress" :aria-label="`Step ${batch.step + 1} of ${batch.steps}`">
        <li
          v-for="(c, i) in plan.cards"
          :key="i"
          :class="{ done: i < batch.step, here: i === batch.step }"
          :title="c.title"
        />
        <li :class="{ here: atEnd }" title="Weigh and judge" />
      </ol>
    </header>
    <p v-if="trouble" class="problem" role="alert">{{ trouble }}</p>
    <div v-if="batch.status !== 'on'" class="over">
      <h2>{{ batch.status === 'done' ? 'This batch is in the journal.' : 'This batch was taken off.' }}</h2>
      <NButton size="large" @click="router.push(batch.status === 'done' ? '/journal' : '/sauces')">
        {{ batch.status === 'done' ? 'To the journal' : 'To the sauces' }}
      </NButton>
    </div>
    <Weighing v-else-if="atEnd" :batch="batch" @back="back" />
    <template v-else-if="card">
      <section class="now" aria-live="polite">
        <span class="label">Step {{ batch.step + 1 }} of {{ batch.steps }}</span>
        <h2>{{ card.title }}</h2>
        <CorrectHere
          v-if="corrects"
          :key="batch.step"
          :sheet="batch.sheet"
          :at="batch.step"
          :held="card.weighed"
          :words="card.do"
        />
        <ul v-else class="amounts">
          <li v-for="w in card.weighed" :key="w.field">
            <b
              >{{ amountValue(w.amount) }}<small>{{ unitName(w.amount) }}</small></b
            >
            <span
              >{{ w.name }}<small v-if="w.amount.measure" class="quiet"> · {{ amount(w.amount) }}</small
              ><small v-else-if="w.spoons && w.spoons.unit !== w.amount.unit" class="quiet">
                · {{ amount(w.spoons) }}</small
              ></span
            >
          </li>
        </ul>
        <p v-if="!corrects" class="do">{{ card.do }}</p>
        <ol v-if="card.lines?.length" class="lines">
          <li v-for="line in card.lines" :key="line">{{ line }}</li>
        </ol>
        <p class="cue"><span class="label">Look for</span>{{ card.cue }}</p>
        <p v-for="remark in card.remarks" :key="remark" class="warning">{{ remark }}</p>
        <button
          v-if="card.timer_s || running"
          class="timer"
          :class="{ running, over: (left ?? 1) <= 0, alone: !card.weighed.length && !down }"
          @click="timer"
        >
          <b>{{ clock(left ?? card.timer_s ?? 0) }}</b>
          <span>{{
            running ? ((left ?? 0) <= 0 ? 'over: press to stop' : 'running: press to stop') : 'start the timer'
          }}</span>
        </button>
        <WayDown v-if="down" :along="down" :ends-g="state?.total_g ?? state?.mass_g" />
      </section>
      <aside>
        <template v-if="state">
          <span class="label">After it</span>
          <p class="grade">{{ session.gradeName(state.grade) || state.looks }}</p>
          <ThicknessRibbon
            v-if="state.viscosity_pa_s"
            :viscosity="state.viscosity_pa_s"
            :low="state.viscosity_low_pa_s"
            :high="state.viscosity_high_pa_s"
            :target="plan.target_grade"
          />
          <div class="pictures">
            <SpoonBack :viscosity="state.viscosity_pa_s" :film-mm="state.film_mm" :looks="state.looks" />
            <PotView :pan="plan.pan" :state="state" :before="before" />
          </div>
          <p class="scale">
            The scale reads <b>{{ scaleReads(card.scale_g ?? state.total_g ?? state.mass_g) }}</b>
            {{ card.scale_g ? 'with the pan' : 'without the pan' }}
          </p>
        </template>
      </aside>
    </template>
    <NModal
      v-model:show="fixing"
      preset="card"
      :title="`Fix it: after “${card?.title ?? 'the last step'}”`"
      style="width: min(860px, 98vw)"
    >
      <FixIt
        :sheet="batch.sheet"
        :at="Math.min(batch.step, batch.steps - 1)"
        take="Done so: write it down"
        @take="mended"
      />
    </NModal>
    <p v-for="(mend, i) in batch.mends" :key="i" class="mended">
      Mended at step {{ mend.step + 1 }}, {{ mend.sign.toLowerCase() }}: <b>{{ mend.title }}</b>
    </p>
    <footer v-if="batch.status === 'on' && !atEnd" class="moves">
      <NButton size="large" :disabled="batch.step === 0" @click="back">Back</NButton>
      <NButton size="large" quaternary @click="leave">Take it off</NButton>
      <NButton size="large" @click="fixing = true">Fix it</NButton>
      <NButton size="large" type="primary" class="forward" @click="forward">
        {{ next ? `Done. Next: ${next.title}` : 'Done. Weigh and judge' }}
      </NButton>
    </footer>
  </div>
  <p v-else class="waiting" :class="{ problem: trouble }">{{ trouble || 'Lighting the ring…' }}</p>
</template>

<style scoped>
.mended {
  padding: 4px 12px;
  border-left: 4px solid var(--leaf);
  background: var(--leaf-wash);
}
.batch {
  display: grid;
  min-height: 100%;
  row-gap: 6px;
  grid-template: auto auto 1fr auto / minmax(0, 1fr) minmax(260px, 34%);
  column-gap: 20px;
  padding: 12px 20px;
}
.batch > * {
  grid-column: 1 / -1;
}
header {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  justify-content: space-between;
  gap: 6px 16px;
}
h1 {
  font-size: 22px;
}
.for {
  display: inline-flex;
  align-items: center;
  min-height: 44px;
}
.progress {
  display: flex;
  gap: 5px;
  margin: 0;
  padding: 0;
  list-style: none;
}
.progress li {
  width: 26px;
  height: 10px;
  border-radius: 5px;
  background: var(--fog3);
}
.progress .done {
  background: var(--leaf);
}
.progress .here {
  background: var(--russet);
  width: 44px;
}
.batch > .now {
  grid-column: 1;
  grid-row: 3;
  display: flex;
  flex-direction: column;
  gap: 8px;
}
.now h2 {
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
  margin-left: 6px;
  font-size: 38px;
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
.timer {
  display: flex;
  align-items: center;
  gap: 20px;
  min-height: 84px;
  margin-top: 6px;
  padding: 6px 22px;
  border: 3px solid var(--ink2);
  border-radius: 14px;
  background: var(--white);
  font-size: 20px;
  cursor: pointer;
}
.timer b {
  font-size: 68px;
  line-height: 1;
}
.timer.alone {
  flex: 1;
  flex-direction: column;
  justify-content: center;
  max-height: 340px;
  margin-bottom: 12px;
  font-size: 24px;
}
.timer.alone b {
  font-size: clamp(84px, 13vw, 170px);
}
.timer.running {
  background: var(--butter-wash);
  border-color: var(--butter);
}
.timer.over {
  background: var(--russet);
  border-color: var(--russet);
  color: var(--white);
}
.batch > aside {
  grid-column: 2;
  grid-row: 3;
  display: flex;
  flex-direction: column;
  gap: 6px;
  align-self: start;
  padding: 14px;
  border-radius: 12px;
  background: var(--white);
  border: 1px solid var(--fog2);
}
.grade {
  font: 600 28px/1.1 var(--display);
}
.pictures {
  display: grid;
  grid-template-columns: 90px 1fr;
  height: max(170px, 27vh);
  gap: 8px;
}
.scale {
  font-size: 18px;
}
.scale b {
  display: block;
  font-size: 34px;
  line-height: 1.1;
}
.warning {
  padding: 6px 12px;
  border-left: 5px solid var(--butter);
  background: var(--butter-wash);
  font-size: 18px;
}
.batch > .moves {
  grid-row: 4;
  align-self: end;
  position: sticky;
  bottom: 0;
  display: flex;
  gap: 10px;
  padding: 10px 0 2px;
  background: var(--fog1);
}
.forward {
  flex: 1;
  white-space: normal;
}
.over {
  display: flex;
  flex-direction: column;
  gap: 16px;
  align-items: flex-start;
}
.waiting {
  padding: 32px;
}
@media (max-width: 800px) {
  .batch {
    display: flex;
    flex-direction: column;
    gap: 10px;
    padding: 10px 12px;
  }
  .amounts b {
    font-size: 54px;
    min-width: 0;
  }
  .now h2 {
    font-size: 28px;
  }
  .do {
    font-size: 20px;
  }
  .batch > .moves {
    flex-wrap: wrap;
    margin-top: auto;
  }
  .moves .forward {
    flex-basis: 100%;
    order: -1;
  }
}
</style>
