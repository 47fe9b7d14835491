<script setup lang="ts">
/** The task that was pressed: when, how much, what to look for, what it waits for, and what a cook can do
 * with it. */
import { NButton } from 'naive-ui'
import { computed, ref } from 'vue'
import { useRouter } from 'vue-router'
import { useActs } from '@/shell/acts'
import { WARM } from '@/shell/potOfService'
import { clockOf, minutesOf, type Block, type Day, type RunUpOpen } from './run-up'

const props = defineProps<{ open: RunUpOpen; day: Day; block: Block }>()
const emit = defineEmits<{ choose: [key: string | null]; cook: [block: Block]; beside: [block: Block] }>()
const names = computed(() => new Map(props.day.blocks.map((one) => [one.key, one.name])))
const hands = { all: 'throughout', 'now-and-then': 'now and then', none: 'by itself' }
const said = computed(() => props.open.whole.value!.document)
const isPot = computed(() => props.block.key.startsWith('pot:'))
/** A pot of its service, or what is kept of a sauce: both go on at the stove. */
const atStove = computed(
  () => (isPot.value || props.block.key.startsWith(WARM)) && Boolean(props.open.whole.value!.service_id),
)
/** It is on the stove: what becomes of it is said there, or here for it. */
const acts = useActs()
const router = useRouter()
const isAside = computed(() => !isPot.value && !props.block.key.startsWith(WARM))
const pot = computed(() => props.open.whole.value!.pots_on[props.block.key] ?? null)
function abandon(): void {
  if (pot.value) void acts.does(pot.value, { kind: 'left' })
}
const longer = ref('')
function setMinutes(): void {
  const minutes = Number(longer.value.replace(',', '.'))
  if (!Number.isFinite(minutes) || minutes < 0 || minutes > 1440 || longer.value.trim() === '') return
  longer.value = ''
  void props.open.say((s) => (s.minutes = { ...s.minutes, [props.block.key]: minutes }))
}
function usual(): void {
  void props.open.say((s) => {
    const minutes = { ...s.minutes }
    delete minutes[props.block.key]
    s.minutes = minutes
  })
}
function unpin(): void {
  void props.open.say((s) => {
    const pins = { ...s.pins }
    delete pins[props.block.key]
    s.pins = pins
  })
}
const rings = computed(() => props.open.whole.value?.planned?.lanes.rings ?? [])
function setRing(name: string): void {
  void props.open.say((s) => {
    const chosen = { ...s.rings }
    if (name) chosen[props.block.pot] = name
    else delete chosen[props.block.pot]
    s.rings = chosen
  })
}
const by = (minutes: number) => props.open.move(props.block.key, props.block.start + minutes)
</script>

<template>
  <section class="task" aria-label="The task">
    <header>
      <p class="when">
        {{ clockOf(block.start) }}<small>to {{ clockOf(block.end) }}</small>
      </p>
      <NButton quaternary aria-label="Close the task" @click="emit('choose', null)">×</NButton>
    </header>
    <h2>{{ block.name }}</h2>
    <p v-if="block.amount" class="amount">{{ block.amount }}</p>
    <p class="quiet">
      {{ block.cooks.join(', ') || 'nobody' }} · {{ minutesOf(block.end - block.start) }}
      <template v-if="block.things.length">
        · {{ [...new Set(block.things.map((thing) => thing.lane))].join(', ') }}</template
      >
    </p>
    <div class="acts">
      <NButton
        v-if="block.state === 'planned'"
        type="primary"
        size="large"
        @click="atStove ? emit('cook', block) : open.mark(block.key, 'began')"
        >{{ atStove ? 'Put on the stove' : 'Begin' }}</NButton
      >
      <template v-if="pot">
        <NButton type="primary" size="large" @click="router.push(`/stove/${pot}`)">To the stove</NButton>
        <NButton v-if="isAside" size="large" @click="acts.does(pot, { kind: 'through' })">Done</NButton>
        <NButton size="large" @click="abandon">Abandon batch</NButton>
      </template>
      <template v-else>
        <NButton v-if="!atStove && block.state !== 'done'" size="large" @click="emit('beside', block)"
          >With timers</NButton
        >
        <NButton v-if="block.state !== 'done'" size="large" @click="open.mark(block.key, 'over')">Done</NButton>
        <NButton v-if="block.state !== 'planned'" size="large" @click="open.mark(block.key, 'undo')"
          >Not after all</NButton
        >
      </template>
    </div>
    <ol>
      <li v-for="(part, n) in block.parts" :key="n" :class="part.hands">
        <b>{{ minutesOf(part.minutes) }}</b>
        <span
          >{{ part.do }}<small v-if="part.cue">{{ part.cue }}</small></span
        >
        <em>{{ hands[part.hands] }}</em>
      </li>
      <li v-for="(touch, n) in block.touches" :key="`t${n}`" class="touch">
        <b>{{ clockOf(touch.at) }}</b><span>{{ touch.do }}</span
        ><em>twenty seconds</em>
      </li>
    </ol>
    <p v-if="block.note" class="quiet">{{ block.note }}</p>
    <div v-if="block.waits.length" class="waits">
      <h3>Then it waits</h3>
      <p v-for="(wait, n) in block.waits" :key="n" :class="{ warning: wait.harmed }">
        <b>{{ minutesOf(wait.minutes) }}</b>
        <template v-if="wait.longest !== null && wait.longest !== undefined">
          of {{ minutesOf(wait.longest) }} at most</template
        >
        for
        <button v-if="wait.until" class="plain link" @click="emit('choose', wait.until)">
          {{ names.get(wait.until) ?? 'another day' }}
        </button>
        <template v-else>the guests</template>
        <small v-if="wait.why">{{ wait.why }}</small>
        <small v-if="wait.held" class="held">{{ wait.held.words }}</small>
      </p>
    </div>
    <div v-if="block.after.length">
      <h3>After</h3>
      <p>
        <button v-for="key in block.after" :key="key" class="plain link" @click="emit('choose', key)">
          {{ names.get(key) ?? key }}
        </button>
      </p>
    </div>
    <div v-if="block.state === 'planned'" class="change">
      <NButton @click="by(-5)">5 min earlier</NButton>
      <NButton @click="by(5)">5 min later</NButton>
      <NButton v-if="block.pinned" @click="unpin">Let it move again</NButton>
      <NButton v-else @click="open.move(block.key, block.start, true)">Pin it here</NButton>
      <label
        >takes
        <input
          v-model="longer"
          class="box"
          inputmode="decimal"
          :placeholder="minutesOf(block.end - block.start)"
          aria-label="Minutes it takes"
          @change="setMinutes"
          @keydown.enter.stop="setMinutes"
        />min</label
      >
      <NButton v-if="said.minutes?.[block.key] !== undefined" @click="usual">Its usual time</NButton>
      <label v-if="isPot"
        >ring
        <select
          :value="said.rings?.[block.pot] ?? ''"
          aria-label="Ring"
          @change="setRing(($event.target as HTMLSelectElement).value)"
        >
          <option value="">any that will do</option>
          <option v-for="ring in rings" :key="ring" :value="ring">{{ ring }}</option>
        </select></label
      >
    </div>
  </section>
</template>

<style scoped>
.task {
  display: flex;
  flex-direction: column;
  gap: 8px;
}
header {
  display: flex;
  justify-content: space-between;
  align-items: start;
}
.when {
  font: 700 44px/1 var(--text);
  font-variant-numeric: tabular-nums;
}
.when small {
  margin-left: 8px;
  font-size: 18px;
  font-weight: 600;
  color: var(--ink2);
}
h2 {
  font-size: 22px;
}
h3 {
  margin-top: 4px;
  font-size: 16px;
}
.amount {
  font: 600 19px var(--text);
}
.acts,
.change {
  display: flex;
  flex-wrap: wrap;
  gap: 8px;
  align-items: center;
}
ol {
  margin: 0;
  padding: 0;
  list-style: none;
}
li {
  display: grid;
  grid-template-columns: 68px 1fr auto;
  gap: 8px;
  padding: 4px 8px;
  border-left: 5px solid transparent;
}
li.all {
  border-left-color: var(--russet);
  background: var(--white);
}
li.now-and-then {
  border-left-color: var(--butter);
}
li small,
.waits small {
  display: block;
  color: var(--ink2);
}
em {
  font-size: 13px;
  font-style: normal;
  color: var(--ink2);
}
.waits p {
  margin: 3px 0;
}
.link {
  display: inline-block;
  min-height: 30px;
  margin-right: 10px;
  text-decoration: underline;
  text-decoration-color: var(--russet);
  text-underline-offset: 3px;
  text-align: left;
}
label {
  display: inline-flex;
  align-items: center;
  gap: 6px;
}
label .box {
  width: 92px;
}
select {
  min-height: 44px;
  padding: 0 8px;
  border: 1px solid var(--fog3);
  border-radius: 8px;
  background: var(--white);
  font: 600 16px var(--text);
}
</style>
