<script setup lang="ts">
/** A run-up: the timed plan back from the moment of serving. */
import { useTitle } from '@vueuse/core'
import { NButton, NDropdown, useMessage } from 'naive-ui'
import { computed, onMounted, ref } from 'vue'
import { useRouter } from 'vue-router'
import { api, ask, type Schemas } from '@/api/client'
import { vChoices } from '@/parts/choices'
import { day as spokenDay } from '@/parts/format'
import { useActs } from '@/shell/acts'
import { beginPot, beginWarming, WARM } from '@/shell/potOfService'
import { useHob } from '@/shell/hob'
import { onEditKeys, onKey } from '@/shell/keys'
import Calls from './Calls.vue'
import Lanes from './Lanes.vue'
import { nextOf } from './lanes'
import PlanPanel from './PlanPanel.vue'
import Progress from './Progress.vue'
import { clockOf, minutesOf, useRunUp, type Block } from './run-up'
import TaskPanel from './TaskPanel.vue'

const props = defineProps<{ id: number }>()
const router = useRouter()
const message = useMessage()
const acts = useActs()
const hob = useHob()
const open = useRunUp()
const { whole, going, trouble, refused, past, now } = open
const lost = ref('')
const chosen = ref<string | null>(null)
const shownDay = ref<0 | -1>(0)
const pans = ref(false)
const zoom = ref(1)
const calling = ref(false)
const planned = computed(() => whole.value?.planned ?? null)
const day = computed(
  () => planned.value?.days.find((one) => one.day === shownDay.value) ?? planned.value?.days.at(-1) ?? null,
)
const block = computed(() => day.value?.blocks.find((one) => one.key === chosen.value) ?? null)
const served = computed(() => (day.value?.day === 0 ? Object.values(planned.value?.served ?? {}) : []))
const today = computed(() => Math.abs(now.value - (served.value[0] ?? 1e9)) < 18 * 60)
const done = computed(() => new Set((day.value?.blocks ?? []).filter((b) => b.state === 'done').map((b) => b.key)))
const nextLines = computed(() => {
  const here = new Set((day.value?.blocks ?? []).map((one) => one.key))
  const from = today.value && day.value?.day === 0 ? now.value : -1e9
  return (planned.value?.sheets ?? []).map((sheet) => ({
    cook: sheet.cook,
    lines: nextOf(sheet.lines, from, here, done.value).slice(0, 3),
  }))
})
useTitle(computed(() => `${whole.value?.name ?? 'Run-up'} · Kestrel Fog`))
onMounted(async () => {
  try {
    await open.open(props.id)
  } catch (error) {
    lost.value = (error as Error).message
  }
})
/** On the stove where it was planned, and whose. */
async function stand(batch: Schemas['BatchOut'], block: Block): Promise<void> {
  acts.keep(batch)
  const ring = block.things.find((thing) => thing.pool === 'ring')?.lane ?? ''
  const cook = block.cooks[0] ?? ''
  if (ring || cook) void acts.does(batch.id, { kind: 'stands', ring, cook })
  void hob.look().catch(() => undefined)
  await router.push(`/stove/${batch.id}`)
}
async function cook(block: Block): Promise<void> {
  try {
    if (block.key.startsWith(WARM)) {
      const id = await beginWarming(whole.value!.service_id!, block.key)
      // What was never put away here has no pot: it is begun in the run-up alone.
      if (id === null) await open.mark(block.key, 'began')
      else await router.push(`/stove/${id}`)
      return
    }
    const begun = await beginPot(whole.value!.service_id!, block.pot)
    if (begun?.made) await stand(begun.made, block)
    else if (begun) await router.push(`/stove/${begun.id}`)
  } catch (error) {
    message.error((error as Error).message)
  }
}
/** What is no sauce gets its minutes at the stove, and is begun here. */
async function beside(block: Block): Promise<void> {
  try {
    const parts = block.parts.map((part) => ({
      do: part.do,
      cue: part.cue,
      hands: part.hands,
      minutes: part.minutes,
    }))
    const task = `task:${props.id}:${block.key}`
    const body = { name: block.name.slice(0, 60), way: '', ingredient: '', parts, task }
    const made = await ask(api.POST('/api/stove/asides', { body }))
    await stand(made, block)
  } catch (error) {
    message.error((error as Error).message)
  }
}
const out = [
  { key: 'print', label: 'Run sheets to print' },
  { key: 'ics', label: 'Calendar with alarms (.ics)' },
  { key: 'csv', label: 'Run sheets as CSV' },
]
function take(key: string): void {
  if (key === 'print') void router.push(`/run-up/${props.id}/sheets`)
  else location.assign(`/api/run-ups/${props.id}/run-sheets.${key}`)
}
onEditKeys({ save: () => undefined, undo: () => void open.undo(), redo: () => undefined })
onKey((key) => {
  if (key !== 'Escape' || !chosen.value) return false
  chosen.value = null
  return true
})
</script>

<template>
  <div v-if="lost" class="lost">
    <h1>This run-up cannot be opened</h1>
    <p>{{ lost }}</p>
    <NButton @click="router.push('/run-up')">Back to the run-ups</NButton>
  </div>
  <div v-else-if="whole" class="run-up">
    <header>
      <div class="what">
        <h1>{{ whole.name }}</h1>
        <p class="quiet">
          {{ spokenDay(whole.date)
          }}<template v-if="served.length">, served at {{ served.map((at) => clockOf(at)).join(' and ') }}</template>
        </p>
      </div>
      <p v-if="day" class="verdict" :class="{ ok: day.ok }">
        <b>{{ clockOf(day.begin) }}</b>
        <span>{{ day.ok ? '✓' : '!' }} {{ day.verdict }}</span>
      </p>
      <div class="buttons">
        <NButton
          v-if="planned?.to_order.length || whole.document.to_order?.length"
          :type="calling ? 'primary' : 'default'"
          @click="calling = !calling"
          >{{ calling ? 'The plan' : 'Calls' }}</NButton
        >
        <NButton :disabled="!past.length || going" title="Undo (Ctrl Z)" aria-label="Undo" @click="open.undo()"
          >↶</NButton
        >
        <NButton :disabled="going" @click="open.again()">Plan again</NButton>
        <NDropdown trigger="click" :options="out" @select="take"><NButton>Run sheets</NButton></NDropdown>
        <NButton v-if="whole.service_id" @click="router.push(`/service/${whole.service_id}`)">Service</NButton>
      </div>
    </header>
    <!-- One line for whatever is to be said, always there: nothing moves under the hand. -->
    <div class="said">
      <p v-if="trouble" class="problem" role="alert">{{ trouble }}</p>
      <Progress v-else-if="going" :open="open" />
      <p v-else-if="refused" class="warning" role="alert">
        Not moved to {{ clockOf(refused.at) }}. {{ refused.words }}.
        <NButton size="small" @click="open.move(refused!.key, refused!.at, true)">Move it all the same</NButton>
        <NButton size="small" @click="refused = null">Leave it</NButton>
      </p>
      <p v-else-if="day && !calling" class="quiet">
        Press a task to see what it waits for; draw it to another time and the rest follows, or it says why not.
        {{ minutesOf(day.end - day.begin) }} from the first hand to the last plate.
      </p>
    </div>
    <p v-if="!planned" class="dashed">The first plan is on its way.</p>
    <template v-else-if="day">
      <Calls v-if="calling" :open="open" />
      <template v-else>
        <ul class="next" aria-label="Next for each cook">
          <li v-for="one in nextLines" :key="one.cook">
            <h2>{{ one.cook }}</h2>
            <button
              v-for="(line, n) in one.lines"
              :key="n"
              class="plain"
              :class="{ first: n === 0 }"
              @click="chosen = line.job"
            >
              <b>{{ clockOf(line.at) }}</b>
              <span
                >{{ line.what }}<small v-if="n === 0 && line.amount"> {{ line.amount }}</small></span
              >
            </button>
            <p v-if="!one.lines.length" class="quiet">nothing more</p>
          </li>
        </ul>
        <div class="body">
          <div>
            <div class="tools">
              <div v-if="planned.days.length > 1" v-choices role="tablist" aria-label="Day">
                <button
                  v-for="one in planned.days"
                  :key="one.day"
                  role="tab"
                  :aria-selected="one.day === day.day"
                  @click="((shownDay = one.day), (chosen = null))"
                >
                  {{ one.day ? 'The day before' : 'The day' }}
                </button>
              </div>
              <span class="key"><i class="k hands"></i>a cook throughout</span>
              <span class="key"><i class="k watch"></i>now and then</span>
              <span class="key"><i class="k touch"></i>a touch</span>
              <span class="grow"></span>
              <label><input v-model="pans" type="checkbox" />pans</label>
              <NButton aria-label="Closer" :disabled="zoom >= 8" @click="zoom *= 1.6">+</NButton>
              <NButton aria-label="Further" :disabled="zoom <= 1" @click="zoom = Math.max(1, zoom / 1.6)">−</NButton>
            </div>
            <Lanes
              :day="day"
              :cooks="planned.lanes.cooks ?? []"
              :rings="planned.lanes.rings ?? []"
              :served="served"
              :now="today && day.day === 0 ? now : null"
              :chosen="chosen"
              :pans="pans"
              :zoom="zoom"
              @choose="chosen = $event"
              @move="(key, at) => open.move(key, at)"
            />
          </div>
          <aside>
            <TaskPanel
              v-if="block"
              :key="block.key"
              :open="open"
              :day="day"
              :block="block"
              @choose="chosen = $event"
              @cook="cook"
              @beside="beside"
            />
            <PlanPanel v-else :open="open" :day="day" />
          </aside>
        </div>
      </template>
    </template>
  </div>
</template>

<style scoped>
.run-up {
  display: flex;
  flex-direction: column;
  gap: 8px;
  padding: 10px 14px 20px;
}
header {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 8px 20px;
}
h1 {
  font-size: 27px;
}
.what {
  flex: 1 1 220px;
}
.verdict {
  display: flex;
  align-items: center;
  gap: 12px;
  padding: 2px 14px;
  border-left: 6px solid var(--danger);
  background: var(--danger-wash);
}
.verdict.ok {
  border-left-color: var(--leaf);
  background: var(--leaf-wash);
}
.verdict b {
  font: 700 38px/1.1 var(--text);
}
.verdict b::before {
  content: 'begin ';
  font-size: 15px;
  font-weight: 600;
}
.buttons {
  display: flex;
  flex-wrap: wrap;
  gap: 8px;
}
.said {
  display: flex;
  align-items: center;
  min-height: 52px;
  font-size: 14px;
}
.said > * {
  flex: 1;
  margin: 0;
}
.next {
  display: grid;
  grid-template-columns: repeat(auto-fit, minmax(260px, 1fr));
  gap: 8px;
  margin: 0;
  padding: 0;
  list-style: none;
}
.next li {
  padding: 4px 12px 6px;
  border: 1px solid var(--fog2);
  border-radius: 10px;
  background: var(--fog0);
}
.next h2 {
  font-size: 17px;
}
.next button {
  display: grid;
  grid-template-columns: 62px 1fr;
  gap: 8px;
  align-items: baseline;
  width: 100%;
  min-height: 28px;
  text-align: left;
}
.next button > span {
  overflow: hidden;
  text-overflow: ellipsis;
  white-space: nowrap;
}
.next .first {
  grid-template-columns: 100px 1fr;
  min-height: 44px;
}
.next .first b {
  font-size: 34px;
  line-height: 1.1;
}
.next .first > span {
  font-size: 19px;
  font-weight: 600;
  white-space: normal;
}
.next small {
  margin-left: 8px;
  font-weight: 400;
}
.body {
  display: grid;
  grid-template-columns: minmax(0, 1fr) 330px;
  gap: 14px;
  align-items: start;
}
.tools {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 6px 14px;
  margin-bottom: 4px;
}
.grow {
  flex: 1;
}
.tools label {
  display: flex;
  align-items: center;
  gap: 6px;
  min-height: 40px;
}
.tools input {
  width: 22px;
  height: 22px;
}
[role='tab'] {
  min-height: 40px;
  padding: 0 14px;
  border: 1px solid var(--fog3);
  background: var(--white);
  font-weight: 600;
}
[role='tab'][aria-selected='true'] {
  border-color: var(--ink);
  background: var(--ink);
  color: var(--white);
}
.key {
  display: inline-flex;
  align-items: center;
  gap: 6px;
  font-size: 14px;
}
.k {
  display: inline-block;
  width: 20px;
  height: 14px;
  border: 1px solid var(--ink);
  border-radius: 3px;
  background: var(--white);
}
.k.hands {
  border-top: 5px solid var(--russet);
}
.k.watch {
  height: 8px;
  border: 2px solid var(--butter);
}
.k.touch {
  width: 10px;
  height: 10px;
  background: var(--ink);
  transform: rotate(45deg);
}
aside {
  padding: 10px 14px;
  border: 1px solid var(--fog2);
  border-radius: 12px;
  background: var(--fog0);
}
.lost {
  padding: 24px;
}
@media (max-width: 900px) {
  .body {
    grid-template-columns: minmax(0, 1fr);
  }
}
</style>
