<script setup lang="ts">
/** All that happened to what is kept, newest first: what was wrong is corrected by a line of its own, never rewritten. */
import { NButton } from 'naive-ui'
import { computed, ref } from 'vue'
import type { Schemas } from '@/api/client'
import { moment } from '@/parts/format'
import { degrees, temperature, toCelsius } from '@/parts/ways'
import { eventWords } from './words'

const props = defineProps<{ kept: Schemas['KeptOut'] }>()
const emit = defineEmits<{ correct: [of: string, why: string, celsius: number | null] }>()
interface Line {
  key: string
  at: number
  words: string
  by: string
  void: boolean
  open: boolean
  warm: boolean
}
const when = (line: Line) => moment(new Date(line.at).toISOString())
/** Devices' readings can be corrected as well as what was typed: the newest of each minute. */
const lines = computed<Line[]>(() => {
  const put = new Date(props.kept.put_at).getTime()
  const voids = new Set(props.kept.read.filter((one) => one.void).map((one) => one.key))
  const events = props.kept.events.map((event) => ({
    key: event.key,
    at: new Date(event.at).getTime(),
    words: eventWords(event),
    by: event.by,
    void: event.void,
    open: !event.void && event.kind !== 'corrected',
    warm: event.kind === 'temperature',
  }))
  const typed = new Set(events.map((one) => one.key))
  const minutes = new Map<number, Line>()
  for (const one of props.kept.read) {
    if (typed.has(one.key)) continue
    minutes.set(Math.floor(one.at_min), {
      key: one.key,
      at: put + one.at_min * 60_000,
      words: temperature(one.celsius, 1) + (one.tray && props.kept.trays > 1 ? `, tray ${one.tray}` : ''),
      by: one.device ? `${one.device}${one.simulated ? ', simulated' : ''}` : '',
      void: one.void,
      open: !voids.has(one.key),
      warm: true,
    })
  }
  return [...events, ...[...minutes.values()].slice(-40)].sort((a, b) => b.at - a.at)
})
const correcting = ref<string | null>(null)
const why = ref('')
const really = ref('')
function open(line: Line): void {
  correcting.value = line.key
  why.value = really.value = ''
}
const right = computed(() => (really.value.trim() ? Number(toCelsius(really.value).replace(',', '.')) : null))
const fits = computed(() => Boolean(why.value.trim()) && (right.value === null || Number.isFinite(right.value)))
function correct(of: string): void {
  if (!fits.value) return
  emit('correct', of, why.value, right.value)
  correcting.value = null
}
const vFocus = { mounted: (el: HTMLElement) => el.focus() }
</script>

<template>
  <ol class="events" aria-label="What happened">
    <li v-for="line in lines" :key="line.key + line.words" :class="{ void: line.void }">
      <span class="quiet">{{ when(line) }}</span> {{ line.words }}
      <span class="quiet">{{ line.by }}</span>
      <template v-if="line.open">
        <form v-if="correcting === line.key" @submit.prevent="correct(line.key)">
          <input
            v-model="why"
            v-focus
            class="words"
            maxlength="200"
            placeholder="what was wrong"
            aria-label="What was wrong"
          />
          <input
            v-if="line.warm"
            v-model="really"
            class="words short"
            inputmode="decimal"
            :placeholder="`really, ${degrees()}`"
            :aria-label="`What it really was, ${degrees()}`"
          />
          <NButton attr-type="submit" :disabled="!fits">Correct it</NButton>
        </form>
        <NButton v-else @click="open(line)">Was not so</NButton>
      </template>
    </li>
  </ol>
</template>

<style scoped>
.events {
  margin: 0;
  padding: 0;
  list-style: none;
}
.events li,
form {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 4px 10px;
  min-height: 44px;
}
.void {
  color: var(--ink2);
  text-decoration: line-through;
}
.words {
  flex: 1 1 160px;
  min-height: 48px;
  padding: 4px 10px;
  border: 2px solid var(--fog4);
  border-radius: 8px;
  background: var(--white);
  font: 600 18px var(--text);
}
.short {
  flex: 0 1 140px;
}
</style>
