<script setup lang="ts">
/** Cooking along: one step at a time, big enough for an elbow and an arm's length. */
import { useTitle } from '@vueuse/core'
import { NButton, NModal, useMessage } from 'naive-ui'
import { computed, h, onMounted, ref } from 'vue'
import { RouterLink, useRouter } from 'vue-router'
import { api, ask, Taken, type Schemas } from '@/api/client'
import FixIt from '@/parts/FixIt.vue'
import { useHob } from '@/shell/hob'
import { onKey } from '@/shell/keys'
import AfterStep from './AfterStep.vue'
import StepNow from './StepNow.vue'
import Weighing from './Weighing.vue'

const props = defineProps<{ id: number }>()
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
const next = computed(() => plan.value?.cards[(batch.value?.step ?? 0) + 1])

const left = computed(() => (batch.value ? hob.left(batch.value) : null))
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
      <RouterLink v-for="pot in batch.beside" :key="pot.id" class="beside" :to="`/stove/${pot.id}`">
        {{ pot.into ? 'Goes into' : pot.status === 'on' ? 'Make first:' : 'Made:' }} {{ pot.name
        }}{{ pot.status === 'done' ? ' ✓' : '' }}
      </RouterLink>
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
      <StepNow class="now" :batch="batch" :card="card" :left="left" @timer="timer" />
      <AfterStep class="after" :plan="plan" :step="batch.step" :card="card" />
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
    <p v-for="(mend, i) in batch.mends" :key="i" class="good-news">
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
}
.batch > .after {
  grid-column: 2;
  grid-row: 3;
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
