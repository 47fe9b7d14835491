<script setup lang="ts">
/** Cooking along: one step at a time, big enough for an elbow and an arm's length. */
import { useTitle, useWakeLock } from '@vueuse/core'
import { NButton, NInput, useMessage } from 'naive-ui'
import { computed, h, onMounted, onUnmounted, ref, watch } from 'vue'
import { RouterLink, useRouter } from 'vue-router'
import { api, ask, type Schemas } from '@/api/client'
import Dialog from '@/parts/Dialog.vue'
import FixIt from '@/parts/FixIt.vue'
import { useActs, type Doing } from '@/shell/acts'
import { useHob } from '@/shell/hob'
import { onKey } from '@/shell/keys'
import { useListen } from '@/shell/listen'
import { useDictation } from '@/shell/dictate'
import AfterStep from './AfterStep.vue'
import { useBelieved } from './believed'
import Afterwards from './Afterwards.vue'
import FreeHand from './FreeHand.vue'
import Happened from './Happened.vue'
import Labels from './Labels.vue'
import LastSaid, { type Said } from './LastSaid.vue'
import Looks from './Looks.vue'
import MiddleRead from './MiddleRead.vue'
import Photos from './Photos.vue'
import ProbeNow from './ProbeNow.vue'
import Record from './Record.vue'
import SolvedAgain from './SolvedAgain.vue'
import Stands from './Stands.vue'
import StepNow from './StepNow.vue'
import StepTimer from './StepTimer.vue'
import Timers from './Timers.vue'
import UnderIt from './UnderIt.vue'
import Waits from './Waits.vue'
import Watching from './Watching.vue'
import Weighing from './Weighing.vue'
import { mm, percent, scaleReads } from '@/parts/format'

const props = defineProps<{ id: number }>()
const hob = useHob()
const acts = useActs()
const listen = useListen()
const router = useRouter()
const message = useMessage()
const trouble = ref('')

async function load(): Promise<void> {
  try {
    await acts.load(props.id)
    trouble.value = ''
  } catch (error) {
    trouble.value = (error as Error).message
  }
}
onMounted(load)
listen.onChanged((id) => {
  if (id === null || id === props.id) void load()
})
listen.onDevices(() => void load())
const batch = computed(() => acts.shown(props.id))
watch(
  () => batch.value?.now,
  (now) => now && hob.setClock(now),
)
useTitle(computed(() => (batch.value ? `${batch.value.name} · stove` : 'Stove')))

// The screen stays awake while a pot is looked at, where the browser allows.
const awake = useWakeLock()
onMounted(() => void awake.request('screen').catch(() => undefined))
onUnmounted(() => void awake.release().catch(() => undefined))

const plan = computed(() => batch.value?.plan)
const free = computed(() => batch.value?.kind === 'free')
const beside = computed(() => batch.value?.kind === 'aside')
/** Later than a day after, nothing of it stands about to be put away. */
const ofToday = computed(() => Date.now() - Date.parse(batch.value?.started_at ?? '') < 86_400_000)
const empty = computed(() => free.value && !batch.value!.steps)
const atEnd = computed(() => Boolean(batch.value && !empty.value && batch.value.step >= batch.value.steps))
const card = computed(() => batch.value?.cards[batch.value.step])
const next = computed(() => batch.value?.cards[batch.value.step + 1])
const onward = computed(() => {
  if (free.value) return 'Done. Weigh and judge'
  if (next.value) return `${card.value?.left_out ? 'On' : 'Done. Next'}: ${next.value.title}`
  return beside.value ? 'Done' : 'Done. Weigh and judge'
})
/** Whether the step is told on its way down. */
const ways = (step: number) => plan.value?.along?.some((one) => one.step === step) ?? false
const left = computed(() => (batch.value ? hob.left(batch.value, 'step') : null))

/** One thing at a time: what is said next takes its place, and so does another step. */
const said = ref<Said | null>(null)
/** What readings tell between two looks at the whole batch. */
const told = ref<{ watched: Schemas['Watched']; at: number } | null>(null)
listen.onWatched((about) => {
  if (about.batch === props.id) told.value = { watched: about.watched, at: hob.serverNow }
})
const readings = ref(new Map<number, number>())
const poured = ref<number | null>(null)
listen.onReading((about) => {
  readings.value.set(about.device, about.value)
  if (about.batch === props.id && about.kind === 'scale') poured.value = about.poured_g
  if (about.batch === props.id && about.kind === 'probe') {
    probed.value = about.probed
    asks.value = about.asks
  }
})
/** What the probe tells; of a step that asks for nothing, nothing. */
const probed = ref<Schemas['Probed'] | null>(null)
/** What is still to be shown before the step is left. */
const asks = ref<string | null>(null)
watch(
  () => [batch.value?.step, batch.value?.revision],
  () => {
    told.value = null
    poured.value = batch.value?.poured_g ?? null
    probed.value = batch.value?.probed ?? null
    asks.value = batch.value?.asks ?? null
  },
  { immediate: true },
)
const { now: believed, ago } = useBelieved(props.id, batch, told, (words) => (said.value = { words }))
/** What stops by the clock has its timer. */
const watched = computed(() => (believed.value?.goal || free.value ? believed.value : null))
/** What the timer of the step runs: until it may be there at the earliest, where it is watched. */
const timerS = computed(() => {
  if (watched.value?.past) return null
  const left = watched.value?.minutes_left
  return left ? Math.max(10, Math.round(60 * left.low)) : (card.value?.timer_s ?? null)
})
const devices = computed(() =>
  (batch.value?.devices ?? []).map((one) => ({ ...one, value: readings.value.get(one.id) ?? one.value })),
)

function does(doing: Doing): ReturnType<typeof acts.does> {
  const done = acts.does(props.id, doing)
  void done.sent.then(() => hob.look().catch(() => undefined))
  return done
}
watch(
  () => acts.told.length,
  () => {
    for (const { why, again } of acts.told.filter((one) => one.batch === props.id))
      said.value = {
        words: why,
        choices: again
          ? [
              { words: 'Yes, so much', does: () => undoable(again, 'It is in.') },
              { words: 'No', does: () => undefined },
            ]
          : [],
      }
    acts.told = acts.told.filter((one) => one.batch !== props.id)
  },
  { immediate: true },
)
function go(to: number): void {
  said.value = null
  if (batch.value) does({ kind: 'go', from_step: batch.value.step, to_step: to })
}
const freeHand = ref<InstanceType<typeof FreeHand> | null>(null)
function forward(): void {
  if (!batch.value || atEnd.value || (freeHand.value && !freeHand.value.settle()) || empty.value) return
  if (free.value) return go(batch.value.steps)
  if (asks.value) {
    // What a rule asks to be shown is told, and the cook decides.
    said.value = {
      words: `${asks.value}.`,
      choices: [{ words: 'Go on all the same', does: () => go(batch.value!.step + 1) }],
    }
    return
  }
  if (beside.value && !next.value) return void does({ kind: 'through' })
  go(batch.value.step + 1)
  // What is in the pan goes on by itself: its next timer runs at once.
  const seconds = beside.value ? card.value?.timer_s : null
  if (seconds) does({ kind: 'timer-on', name: 'step', seconds })
}
function added(put: Record<string, unknown>): void {
  undoable({ kind: 'added', put }, 'It is in.')
}
const making = ref(false)
const sauceName = ref('')
async function makeSauce(): Promise<void> {
  try {
    const body = { name: sauceName.value.trim() || batch.value!.name }
    const made = await ask(api.POST('/api/stove/{batch_id}/sauce', { params: { path: { batch_id: props.id } }, body }))
    await router.push(`/sauces/${made.sauce_id}`)
  } catch (error) {
    message.error((error as Error).message)
  }
}
function back(): void {
  if (batch.value && batch.value.step > 0) go(batch.value.step - 1)
}
function timer(): void {
  if (left.value !== null) does({ kind: 'timer-off', name: 'step' })
  else if (timerS.value) does({ kind: 'timer-on', name: 'step', seconds: timerS.value })
}
/** Said with a way back. */
function saying(words: string, undo: () => void): void {
  said.value = { words, choices: [{ words: 'Undo', does: undo }] }
}
function undoable(doing: Doing, words: string): void {
  const { key, sent } = does(doing)
  void sent.then(() => {
    // Of what was refused it is said why, and that it happened is not.
    if (batch.value?.acts.some((act) => act.key === key)) saying(words, () => takeBack(key))
  })
}
function takeBack(key: string): void {
  does({ kind: 'undone', of: key })
}
/** On without it: nothing of this step goes in. */
function leaveOut(): void {
  if (!batch.value || !card.value) return
  const [here, title] = [batch.value.step, card.value.title]
  const { key } = does({ kind: 'skipped', step: here })
  go(here + 1)
  saying(`Left out: ${title}.`, () => {
    takeBack(key)
    if (batch.value?.step === here + 1) go(here)
  })
}
/** The step it is at was left out: done after all. */
function afterAll(): void {
  const act = batch.value?.acts.find((one) => one.kind === 'skipped' && one.step === batch.value?.step)
  if (act) takeBack(act.key)
}
function saw(what: 'level' | 'gone' | 'spoon' | 'boils', value: number): void {
  const words = {
    level: `${mm(value)} deep.`,
    gone: `${percent(100 * value)} gone.`,
    spoon: 'Spoon noted.',
    boils: 'It boils.',
  }
  undoable({ kind: 'saw', step: batch.value!.step, what, value }, words[what])
}
/** Read off a probe that is not ours, °C. */
function readMiddle(celsius: string): void {
  undoable({ kind: 'saw', step: batch.value!.step, what: 'probe', value: celsius }, 'Written down.')
}
/** Read off a scale that is not ours, as it is typed. */
function weighed(value: string): void {
  undoable({ kind: 'saw', step: batch.value!.step, what: 'scale', value }, `${value} on the scale.`)
}
function put(field: string, grams: number): void {
  undoable({ kind: 'put', step: batch.value!.step, field, grams }, `${scaleReads(grams)} went in.`)
}
function typedPut(field: string, amount: string, unit: string): void {
  const words = /[a-z]/i.test(amount) ? amount : `${amount} ${unit}`
  undoable({ kind: 'put', step: batch.value!.step, field, amount, unit }, `${words} went in.`)
}
function poured_(field: string, how: 'jug' | 'scale' | 'level', after: string, before: string): void {
  undoable({ kind: 'poured', step: batch.value!.step, field, how, after, before }, 'Noted.')
}
/** The spoon that was lifted, and what went in for it. */
function corrected(grams: number, viscosity: number): void {
  const step = batch.value!.step
  does({ kind: 'saw', step, what: 'spoon', value: viscosity })
  undoable({ kind: 'corrected', step, grams }, grams ? `${scaleReads(grams)} went in.` : 'Nothing went in.')
}
const again = computed(() => {
  const found = batch.value
  return found?.status === 'on' && found.followed?.at === found.step ? found.followed.again : null
})
function turn(changes: Schemas['TurnedAmount'][]): void {
  const turned = changes.map(({ step, field, grams }) => ({ step, field, grams }))
  undoable({ kind: 'turned', changes: turned }, 'Weighed otherwise from here.')
}
async function leave(): Promise<void> {
  does({ kind: 'left' })
  const said = message.info(
    () =>
      h('span', [
        'Taken off, nothing written down. ',
        h(NButton, { size: 'small', onClick: () => putBack(said) }, () => 'Put it back'),
      ]),
    { duration: 12_000 },
  )
  await router.push('/stove')
}
function putBack(said: { destroy: () => void }): void {
  said.destroy()
  does({ kind: 'back' })
  void router.push(`/stove/${props.id}`)
}
const fixing = ref(false)
function mended(remedy: Schemas['Remedy'], sign: string): void {
  undoable({ kind: 'mended', sign, title: remedy.title, do: remedy.do, steps: remedy.steps }, 'Written down: it is in.')
  fixing.value = false
}
/** Boiled down too far: what brings it back is in. */
function broughtBack({ sign, title, steps }: Schemas['Past']): void {
  undoable({ kind: 'mended', sign, title, do: [], steps }, 'Written down: it is in.')
}
const noting = ref(false)
const note = ref('')
const dictation = useDictation((text) => (note.value = [note.value, text].filter(Boolean).join(' ')))
function writeNote(): void {
  if (note.value.trim()) undoable({ kind: 'noted', text: note.value.trim(), tasted: false }, 'Written down.')
  note.value = ''
  noting.value = false
}
onKey((key) => {
  if (!batch.value || batch.value.status !== 'on') return false
  if (key === ' ' || key === 'ArrowRight') forward()
  else if (key === 'Backspace' || key === 'ArrowLeft') back()
  else if (key === 't') timer()
  else if (key === 'f') fixing.value = true
  else if (key === 'n') noting.value = true
  else return false
  return true
})
</script>

<template>
  <div v-if="batch && plan" class="batch">
    <header>
      <h1>{{ batch.name }}</h1>
      <Stands
        v-if="batch.status === 'on'"
        :ring="batch.ring"
        :pan="batch.pan"
        :cook="batch.cook"
        :name="batch.name"
        @stands="does({ kind: 'stands', ring: batch.ring, cook: batch.cook, ...$event })"
      />
      <RouterLink v-if="batch.service_id" class="for" :to="`/service/${batch.service_id}?part=sheet`"
        >to its service</RouterLink
      >
      <RouterLink v-for="pot in batch.beside" :key="pot.id" class="beside" :to="`/stove/${pot.id}`">
        {{ pot.into ? 'Goes into' : pot.status === 'on' ? 'Make first:' : 'Made:' }} {{ pot.name
        }}{{ pot.status === 'done' ? ' ✓' : '' }}
      </RouterLink>
      <ol v-if="!free" class="progress" :aria-label="`Step ${batch.step + 1} of ${batch.steps}`">
        <li
          v-for="(c, i) in batch.cards"
          :key="i"
          :class="{ done: i < batch.step, here: i === batch.step }"
          :title="c.title"
        />
        <li v-if="!beside" :class="{ here: atEnd }" title="Weigh and judge" />
      </ol>
    </header>
    <p v-if="trouble" class="problem" role="alert">{{ trouble }}</p>
    <p v-if="batch.status === 'on' && batch.shares_pan" class="warning">{{ batch.shares_pan }}.</p>
    <div v-if="batch.status !== 'on'" class="over">
      <h2 v-if="beside">{{ batch.status === 'done' ? 'Done, and off the fire.' : 'Taken off.' }}</h2>
      <h2 v-else>{{ batch.status === 'done' ? 'This batch is in the journal.' : 'This batch was taken off.' }}</h2>
      <NButton v-if="beside" size="large" @click="router.push('/stove?hob')">To the stove</NButton>
      <NButton v-else size="large" @click="router.push(batch.status === 'done' ? '/journal' : '/sauces')">
        {{ batch.status === 'done' ? 'To the journal' : 'To the sauces' }}
      </NButton>
      <NButton v-if="free && batch.steps" size="large" @click="making = true">Make a sauce of it</NButton>
      <template v-if="batch.status === 'done' && !beside">
        <template v-if="ofToday">
          <NButton size="large" @click="router.push(`/keeping/put/${batch.id}`)">Put it away…</NButton>
          <Labels :batch="batch" />
        </template>
        <Photos :batch="batch" />
        <Afterwards :batch="batch" />
        <Record :batch="batch" />
      </template>
    </div>
    <div v-else-if="atEnd" class="finished">
      <LastSaid v-if="said" :said="said" @over="said = null" />
      <Waits v-if="batch.waits" :waits="batch.waits" />
      <ProbeNow v-if="probed" :probed="probed" />
      <Weighing :batch="batch" @back="back" @fix="fixing = true" />
      <div class="put-away">
        <NButton size="large" @click="router.push(`/keeping/put/${batch.id}`)">Put it away…</NButton>
        <Labels :batch="batch" />
        <Photos :batch="batch" />
        <NButton v-if="free" size="large" @click="making = true">Make a sauce of it</NButton>
      </div>
    </div>
    <template v-else-if="card || empty">
      <div class="now" :class="{ wholly: watched && !free }">
        <FreeHand v-if="free" ref="freeHand" :batch="batch" :poured="poured" @added="added" @undo="takeBack" />
        <StepNow
          v-else-if="card"
          :batch="batch"
          :card="card"
          :left="left"
          :followed="Boolean(watched)"
          :timer-s="timerS"
          :poured="poured"
          @timer="timer"
          @put="put"
          @typed="typedPut"
          @poured="poured_"
          @corrected="corrected"
          @after-all="afterAll"
        />
        <template v-if="watched && !free">
          <Looks :batch="batch" @saw="saw" @weighed="weighed" />
          <UnderIt :batch="batch" :devices="devices" />
        </template>
        <Timers :batch="batch" @does="does" />
      </div>
      <div class="after">
        <StepTimer
          v-if="card && !free && (card.weighed.length || ways(batch.step) || watched)"
          :left="left"
          :seconds="timerS"
          :followed="Boolean(watched)"
          @press="timer"
        />
        <MiddleRead v-if="batch.reads_middle" :asks="asks" @read="readMiddle" />
        <ProbeNow v-if="probed" :probed="probed" />
        <Watching
          v-if="watched"
          :watched="watched"
          :ago="acts.offline ? ago : null"
          :device="devices.find((one) => one.kind === 'scale')"
          @level="saw('level', $event)"
          @back="broughtBack"
        />
        <AfterStep v-else-if="card && !beside" :batch="batch" :step="batch.step" :card="card" :now="free" />
        <template v-if="!watched || free">
          <Looks v-if="!beside && !empty" :batch="batch" @saw="saw" @weighed="weighed" />
          <UnderIt :batch="batch" :devices="devices" />
        </template>
      </div>
    </template>
    <Dialog v-model:show="fixing" :title="card ? `Fix it: after “${card.title}”` : 'Fix it: at the end'" width="860px">
      <FixIt
        :batch="batch.id"
        :revision="batch.revision"
        take="Done so: write it down"
        @take="mended"
        @saw="saw('spoon', $event)"
      />
    </Dialog>
    <Dialog v-model:show="making" title="Make a sauce of it" width="560px">
      <form class="note" @submit.prevent="makeSauce">
        <p>As it was cooked: what went in, and how long it boiled. It opens in the builder.</p>
        <NInput
          v-model:value="sauceName"
          maxlength="120"
          :placeholder="batch.name"
          :input-props="{ 'aria-label': 'Name of the sauce' }"
        />
        <NButton size="large" type="primary" attr-type="submit">Put it down</NButton>
      </form>
    </Dialog>
    <Dialog v-model:show="noting" title="Write down" width="560px">
      <form class="note" @submit.prevent="writeNote">
        <NInput
          v-model:value="note"
          type="textarea"
          :rows="3"
          maxlength="500"
          autofocus
          placeholder="what happened, what it needed"
          :input-props="{ 'aria-label': 'Note' }"
        />
        <NButton
          v-if="dictation.can"
          size="large"
          :aria-pressed="dictation.listening.value"
          @click="dictation.listening.value ? dictation.end() : dictation.begin()"
          >{{ dictation.listening.value ? 'Listening: press to stop' : 'Speak it' }}</NButton
        >
        <NButton size="large" type="primary" attr-type="submit">Write it down</NButton>
      </form>
    </Dialog>
    <SolvedAgain v-if="again" :again="again" @take="turn" @fix="fixing = true" />
    <Happened v-if="batch.status === 'on'" :batch="batch" @undo="takeBack" />
    <div v-if="batch.mends.length" class="good-news">
      <p v-for="(mend, i) in batch.mends" :key="i">
        Mended {{ mend.step < batch.cards.length ? `at step ${mend.step + 1}` : 'at the end' }},
        {{ mend.sign.toLowerCase() }}: <b>{{ mend.title }}</b>
      </p>
    </div>
    <footer v-if="batch.status === 'on' && !atEnd" class="moves">
      <LastSaid :said="said" @over="said = null" />
      <div class="more scroll">
        <NButton v-if="!free" size="large" :disabled="batch.step === 0" @click="back">Back</NButton>
        <NButton v-if="!beside" size="large" :disabled="empty" @click="fixing = true">Fix it</NButton>
        <NButton size="large" @click="noting = true">Note</NButton>
        <NButton v-if="!free && !beside" size="large" :disabled="card?.left_out" @click="leaveOut">Leave out</NButton>
        <Photos v-if="!beside" :batch="batch" class="photo" />
        <NButton size="large" quaternary @click="leave">Take it off</NButton>
      </div>
      <NButton size="large" type="primary" class="forward" :disabled="empty" @click="forward">
        {{ onward }}
      </NButton>
    </footer>
  </div>
  <p v-else class="waiting" :class="{ problem: trouble }">{{ trouble || 'Lighting the ring…' }}</p>
</template>

<style scoped>
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
/* Read at arm's length. */
.batch :deep(:is(.label, .problem)) {
  font-size: 16px;
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
.beside {
  padding: 0 12px;
  border: 2px solid var(--russet);
  border-radius: 8px;
  text-decoration: none;
  font-weight: 700;
}
.for,
.beside {
  display: inline-flex;
  align-items: center;
  min-height: 44px;
}
.progress {
  display: flex;
  flex: 0 1 140px;
  gap: 4px;
  margin: 0;
  padding: 0;
  list-style: none;
}
.progress li {
  flex: 1 1 0;
  height: 10px;
  border-radius: 5px;
  background: var(--fog3);
}
.progress .done {
  background: var(--leaf);
}
.progress .here {
  background: var(--russet);
  flex-grow: 2;
}
.batch > .now {
  display: flex;
  flex-direction: column;
  gap: 8px;
  grid-column: 1;
  grid-row: 3;
}
.batch > .after {
  display: flex;
  flex-direction: column;
  gap: 12px;
  grid-column: 2;
  grid-row: 3;
}
.batch:has(.wholly) {
  grid-template-columns: minmax(280px, 34%) minmax(0, 1fr);
}
.after > .watching {
  flex: 1;
}
.moves :deep(.take) {
  min-height: 64px;
}
.batch > .moves {
  grid-row: 4;
  align-self: end;
  position: sticky;
  bottom: 0;
  display: flex;
  flex-wrap: wrap;
  gap: 6px 10px;
  padding: 2px 0;
  background: var(--fog1);
}
.moves > .last-said {
  flex-basis: 100%;
}
.more {
  display: flex;
  flex: none;
  gap: inherit;
}
.batch > .happened {
  grid-row: 5;
}
.batch > .good-news {
  grid-row: 6;
}
/* What has the focus is not under what stays at the foot. */
:global(main:has(.batch > .moves)) {
  scroll-padding-bottom: 96px;
}
.forward {
  flex: 1;
  min-height: 64px;
  white-space: normal;
}
.note {
  display: flex;
  flex-direction: column;
  gap: 12px;
}
.over {
  display: flex;
  flex-wrap: wrap;
  gap: 12px;
  align-items: flex-start;
}
.over > :is(h2, section) {
  flex-basis: 100%;
}
.finished {
  display: flex;
  flex-direction: column;
  gap: 14px;
  grid-row: 3;
}
.put-away {
  display: flex;
  flex-wrap: wrap;
  align-items: start;
  gap: 12px 32px;
}
.waiting {
  padding: 32px;
}
/* Zoomed in, what stays at the foot would take half of the page. */
@media (max-height: 520px) {
  .batch > .moves {
    position: static;
  }
  :global(main:has(.batch > .moves)) {
    scroll-padding-bottom: 0;
  }
}
@media (max-width: 800px) and (min-height: 521px) {
  :global(main:has(.batch > .moves)) {
    scroll-padding-bottom: 170px;
  }
}
@media (max-width: 800px) {
  .batch {
    display: flex;
    flex-direction: column;
    gap: 10px;
    padding: 10px 12px;
  }
  .batch > .now {
    display: contents;
  }
  .batch > .after {
    order: 1;
  }
  .now > .looks,
  .now > .under,
  .now > .timers {
    order: 2;
  }
  .batch > .happened,
  .batch > .good-news {
    order: 3;
  }
  .moves > .last-said {
    flex-basis: auto;
    order: 1;
  }
  .batch > .moves {
    order: 4;
    flex-flow: column-reverse nowrap;
    gap: 6px;
    align-self: stretch;
    margin-top: auto;
  }
  .more > * {
    flex: none;
  }
}
</style>
