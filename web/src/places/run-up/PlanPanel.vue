<script setup lang="ts">
/** What the plan comes to: what was aimed at and how far it came, what is short and what mends it, who is
 * there, what may be changed. */
import { NButton } from 'naive-ui'
import { computed, ref } from 'vue'
import { fixed } from '@/parts/ways'
import { clockOf, minutesOf, type Day, type RunUpOpen } from './run-up'

const props = defineProps<{ open: RunUpOpen; day: Day }>()
const planned = computed(() => props.open.whole.value!.planned!)
const said = computed(() => props.open.whole.value!.document)
const cooks = computed(() => planned.value.lanes.cooks ?? [])
const bounds = (value: number, stage: string) => (stage === 'begin' ? clockOf(value) : minutesOf(value))
const name = ref('')
function ensure(s: { cooks?: { name: string }[] }): { name: string; comes?: string | null; goes?: string | null }[] {
  if (!s.cooks?.length) s.cooks = cooks.value.map((one) => ({ name: one }))
  return s.cooks
}
function addCook(): void {
  const who = name.value.trim()
  if (!who) return
  name.value = ''
  void props.open.say((s) => ensure(s).push({ name: who }))
}
function removeCook(who: string): void {
  void props.open.say((s) => {
    const rest = ensure(s).filter((one) => one.name !== who)
    s.cooks = rest as typeof s.cooks
    s.extra = (s.extra ?? []).filter((one) => one.name !== who)
  })
}
const timeOf = (who: string, end: 'comes' | 'goes') => said.value.cooks?.find((one) => one.name === who)?.[end] ?? ''
function setTime(who: string, end: 'comes' | 'goes', value: string): void {
  void props.open.say((s) => {
    const one = ensure(s).find((each) => each.name === who)
    if (one) one[end] = value || null
  })
}
const gone = (what: string) => (said.value.out ?? []).some((one) => one.what === what)
function out(what: string): void {
  void props.open.say((s) => {
    const there = s.out ?? []
    s.out = gone(what) ? there.filter((one) => one.what !== what) : [...there, { what, start: nowOrNull() }]
  })
}
/** From now on where cooking has begun, else for the whole of it. */
const nowOrNull = () =>
  said.value.now === null || said.value.now === undefined ? null : Math.round(props.open.now.value)
function setOver(value: string): void {
  const minutes = Number(value)
  if (Number.isFinite(minutes) && minutes >= 0 && minutes <= 120) void props.open.say((s) => (s.served_over = minutes))
}
const lateBy = (sitting: string) => (said.value.late_by as Record<string, number> | undefined)?.[sitting] ?? 0
function setLate(sitting: string, by: number): void {
  void props.open.say((s) => (s.late_by = { ...(s.late_by ?? {}), [sitting]: by } as typeof s.late_by))
}
function toggle(list: 'ahead' | 'same_day' | 'to_order', line: number): void {
  void props.open.say((s) => {
    const there = s[list] ?? []
    s[list] = there.includes(line) ? there.filter((one) => one !== line) : [...there, line]
  })
}
const isAhead = (line: { number: number; cold: boolean }) =>
  line.cold ? !(said.value.same_day ?? []).includes(line.number) : (said.value.ahead ?? []).includes(line.number)
const sittings = computed(() => Object.entries(planned.value.served))
</script>

<template>
  <section class="panel" aria-label="The plan">
    <p v-for="text in planned.remarks" :key="text" class="warning">{{ text }}</p>
    <div v-if="planned.short.length || planned.mends.length || !day.ok" class="mends">
      <h2>{{ day.ok ? 'Could be easier' : 'What is short' }}</h2>
      <p v-for="one in planned.short" :key="one.what" class="short">{{ one.words }}</p>
      <template v-if="planned.mends.length">
        <p class="quiet">Each of these was tried and mends it:</p>
        <NButton v-for="mend in planned.mends" :key="mend.key" block size="large" @click="open.mend(mend.key)">{{
          mend.words
        }}</NButton>
      </template>
      <p v-else-if="planned.mended">No single change that was tried mends it. Take a dish off, or add two things.</p>
      <p v-else class="quiet">Looking for changes that mend it …</p>
      <p v-for="text in day.spoils.slice(0, 6)" :key="text" class="spoils">{{ text }}</p>
    </div>
    <div>
      <h2>How good it is</h2>
      <p class="quiet">
        First that nothing is late, then freshness of what suffers, then less waiting, then a later start.
      </p>
      <dl>
        <template v-for="aim in day.aims" :key="aim.stage">
          <dt>{{ aim.words }}</dt>
          <dd>
            {{ bounds(aim.value, aim.stage) }}<small v-if="aim.proved">best there is</small
            ><small v-else-if="aim.kept">best with the waits above as they are</small
            ><small v-else-if="aim.bound !== null">no better than {{ bounds(aim.bound, aim.stage) }}</small>
          </dd>
        </template>
      </dl>
      <p class="quiet">
        Planned in {{ fixed(day.seconds, 1) }} s<template v-if="day.stopped">, stopped by the clock</template
        ><template v-if="!day.proved">; up to {{ Math.round(100 * day.gap) }} % could still be saved</template>. The
        minutes are estimates.
      </p>
    </div>
    <div>
      <h2>Who is there</h2>
      <div v-for="who in cooks" :key="who" class="cook">
        <b :class="{ gone: gone(`cook:${who}`) }">{{ who }}</b>
        <input
          type="time"
          :value="timeOf(who, 'comes')"
          :aria-label="`${who} from`"
          @change="setTime(who, 'comes', ($event.target as HTMLInputElement).value)"
        /><span>to</span
        ><input
          type="time"
          :value="timeOf(who, 'goes')"
          :aria-label="`${who} until`"
          @change="setTime(who, 'goes', ($event.target as HTMLInputElement).value)"
        />
        <NButton size="small" @click="out(`cook:${who}`)">{{
          gone(`cook:${who}`) ? 'Back again' : 'Falls ill'
        }}</NButton>
        <NButton
          size="small"
          quaternary
          :aria-label="`Take ${who} off`"
          :disabled="cooks.length < 2"
          @click="removeCook(who)"
          >×</NButton
        >
      </div>
      <form class="who" @submit.prevent="addCook">
        <input
          v-model="name"
          class="box"
          maxlength="60"
          placeholder="One more cook"
          aria-label="Name of one more cook"
        />
        <NButton attr-type="submit" :disabled="!name.trim()">Add</NButton>
      </form>
      <p class="rings">
        <NButton v-for="ring in planned.lanes.rings" :key="ring" size="small" @click="out(`ring:${ring}`)">{{
          gone(`ring:${ring}`) ? `${ring} works again` : `${ring} breaks`
        }}</NButton>
      </p>
    </div>
    <div>
      <h2>When it is served</h2>
      <div v-for="[sitting, at] in sittings" :key="sitting" class="who">
        <b>{{ clockOf(at) }}</b>
        <NButton size="small" @click="setLate(sitting, lateBy(sitting) + 10)">10 min later</NButton>
        <NButton v-if="lateBy(sitting)" size="small" @click="setLate(sitting, 0)">As planned</NButton>
      </div>
      <label class="who"
        >goes out over
        <input
          class="box short-box"
          inputmode="numeric"
          :value="said.served_over"
          aria-label="Minutes it goes out over"
          @change="setOver(($event.target as HTMLInputElement).value)"
        />
        min</label
      >
    </div>
    <div>
      <h2>Dishes</h2>
      <div v-for="line in planned.lines" :key="line.number" class="dish">
        <b>{{ line.name }}</b>
        <label v-if="line.filled"
          ><input
            type="checkbox"
            :checked="isAhead(line)"
            @change="toggle(line.cold ? 'same_day' : 'ahead', line.number)"
          />filled the day before</label
        >
        <label
          ><input
            type="checkbox"
            :checked="(said.to_order ?? []).includes(line.number)"
            @change="toggle('to_order', line.number)"
          />finished when called</label
        >
      </div>
    </div>
  </section>
</template>

<style scoped>
.panel {
  display: flex;
  flex-direction: column;
  gap: 16px;
}
h2 {
  margin-bottom: 4px;
  font-size: 20px;
}
.mends {
  display: flex;
  flex-direction: column;
  gap: 6px;
}
.mends :deep(.n-button) {
  height: auto;
  min-height: 52px;
  padding: 6px 12px;
}
.mends :deep(.n-button__content) {
  white-space: normal;
  text-align: left;
}
.short {
  font-weight: 600;
}
.spoils {
  font-size: 14px;
  color: var(--ink2);
}
dl {
  display: grid;
  grid-template-columns: minmax(0, 1fr) minmax(0, 1fr);
  gap: 2px 12px;
  margin: 6px 0;
}
dd {
  margin: 0;
  font-weight: 700;
  text-align: right;
}
dd small {
  display: block;
  font-weight: 400;
  color: var(--ink2);
}
.cook {
  display: grid;
  grid-template-columns: 1fr auto 1fr;
  gap: 4px 8px;
  align-items: center;
  padding: 6px 0;
  border-top: 1px solid var(--fog2);
}
.cook b {
  grid-column: 1 / -1;
  font-size: 18px;
}
.cook input {
  width: 100%;
  min-width: 0;
  min-height: 44px;
  padding: 0 6px;
  border: 1px solid var(--fog3);
  border-radius: 8px;
  background: var(--white);
  font: 600 15px var(--text);
}
.who,
.dish {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 8px;
  min-height: 44px;
}
.who b {
  min-width: 64px;
  font-size: 18px;
}
.gone {
  text-decoration: line-through;
}
.who .box {
  flex: 1;
  min-width: 120px;
}
.who .short-box {
  flex: 0 0 80px;
  min-width: 0;
}
.rings {
  display: flex;
  flex-wrap: wrap;
  gap: 6px;
  margin-top: 4px;
}
.dish b {
  flex: 1 1 100%;
}
.dish {
  padding: 6px 0;
  border-top: 1px solid var(--fog2);
}
.dish label {
  display: flex;
  align-items: center;
  gap: 6px;
  min-height: 32px;
}
.dish input {
  width: 22px;
  height: 22px;
}
</style>
