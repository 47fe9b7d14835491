<script setup lang="ts">
/** One thing that is kept: how it cools, what is left, what happened to it. */
import { useTitle } from '@vueuse/core'
import { NButton } from 'naive-ui'
import { computed, onMounted, ref } from 'vue'
import { RouterLink, useRouter } from 'vue-router'
import { api, ask, type Schemas } from '@/api/client'
import { grams, millilitres } from '@/parts/format'
import { newKey } from '@/api/once'
import { degrees, temperature, toCelsius } from '@/parts/ways'
import { useListen } from '@/shell/listen'
import { useSession } from '@/shell/session'
import KeptEvents from './KeptEvents.vue'
import TraysCooling from './TraysCooling.vue'
import { stateWords } from './words'

type Event = Schemas['EventsIn']['events'][number]
type Body<E> = E extends Event ? Omit<E, 'key' | 'at'> : never
const props = defineProps<{ id: number }>()
const session = useSession()
const listen = useListen()
const router = useRouter()
const kept = ref<Schemas['KeptOut'] | null>(null)
const trouble = ref('')
useTitle(computed(() => (kept.value ? `${kept.value.name} · keeping` : 'Keeping')))
async function load(): Promise<void> {
  try {
    kept.value = await ask(api.GET('/api/keeping/{kept_id}', { params: { path: { kept_id: props.id } } }))
    trouble.value = ''
  } catch (error) {
    trouble.value = (error as Error).message
  }
}
onMounted(load)
listen.onKept((id) => {
  if (id === props.id) void load()
})
listen.onReading((about) => {
  if (about.kind === 'probe' && about.batch === kept.value?.batch_id) void load()
})
const busy = ref(false)
/** One key for one press: sent again after a lost answer it happens once. */
async function happens(event: Body<Event>): Promise<boolean> {
  busy.value = true
  try {
    const events = [{ ...event, key: newKey(), at: new Date().toISOString() } as Event]
    kept.value = await ask(
      api.POST('/api/keeping/{kept_id}/events', { params: { path: { kept_id: props.id } }, body: { events } }),
    )
    trouble.value = ''
    asking.value = null
    return true
  } catch (error) {
    trouble.value = (error as Error).message
    return false
  } finally {
    busy.value = false
  }
}
const actions = ['into ice, stirred', 'shallower trays', 'heated through and served at once']
const tray = ref(1)
/** Of several trays, what is told is of the one that is looked at. */
const ofTray = computed(() => ((kept.value?.trays ?? 1) > 1 ? { tray: tray.value } : {}))
const asking = ref<'warm' | 'drawn' | 'thrown' | 'temperature' | 'action' | null>(null)
const amount = ref('')
const words = ref('')
function ask_(kind: NonNullable<typeof asking.value>): void {
  asking.value = asking.value === kind ? null : kind
  amount.value = words.value = ''
}
const fits = computed(() => Boolean((['action', 'thrown'].includes(asking.value ?? '') ? words : amount).value.trim()))
async function say(): Promise<void> {
  if (!fits.value) return
  if (asking.value === 'drawn') await draw()
  else if (asking.value === 'warm') await warm()
  else if (asking.value === 'temperature') {
    const celsius = Number(toCelsius(amount.value).replace(',', '.'))
    await happens({ kind: 'temperature', celsius, ...ofTray.value })
  } else if (asking.value === 'action') await happens({ kind: 'action', words: words.value, ...ofTray.value })
  else if (asking.value === 'thrown')
    await happens({
      kind: 'thrown',
      grams: amount.value.trim() || null,
      reason: words.value,
      ...(amount.value.trim() ? ofTray.value : {}),
    })
}
/** What nothing shows to have cooled in time, or is past its day, is never drawn on without a word. Null: it is not. */
function although(): boolean | null {
  const over = kept.value?.state === 'over'
  if (!kept.value?.unshown && !over) return false
  const why = over ? 'It is past its day.' : 'Nothing shows that it cooled in time.'
  return window.confirm(`${kept.value?.words ?? ''}\n\n${why} Take it out all the same?`) ? true : null
}
async function draw(): Promise<void> {
  const asked = although()
  if (asked === null) return
  await happens({ kind: 'drawn', grams: amount.value.trim(), purpose: words.value, although: asked })
}
/** So much of it on the stove: drawn from its tray, warmed and let down. */
async function warm(): Promise<void> {
  const asked = although()
  if (asked === null) return
  busy.value = true
  try {
    const path = { kept_id: props.id }
    const drawn = { kind: 'drawn' as const, key: newKey(), at: new Date().toISOString(), grams: amount.value.trim() }
    const body = { ...drawn, purpose: words.value, although: asked }
    const begun = await ask(api.POST('/api/keeping/{kept_id}/warm', { params: { path }, body }))
    await router.push(`/stove/${begun.batch_id}`)
  } catch (error) {
    trouble.value = (error as Error).message
  } finally {
    busy.value = false
  }
}
async function correct(of: string, why: string, celsius: number | null): Promise<void> {
  await happens({ kind: 'corrected', of, why, ...(celsius === null ? {} : { celsius }) })
}
async function labels(): Promise<void> {
  busy.value = true
  try {
    const body = { copies: 1, utc_offset_min: -new Date().getTimezoneOffset() }
    await ask(api.POST('/api/keeping/{kept_id}/labels', { params: { path: { kept_id: props.id } }, body }))
    printed.value = true
  } catch (error) {
    trouble.value = (error as Error).message
  } finally {
    busy.value = false
  }
}
const printed = ref(false)
const vFocus = { mounted: (el: HTMLElement) => el.focus() }
</script>

<template>
  <div class="place">
    <p v-if="trouble" class="problem" role="alert">{{ trouble }}</p>
    <template v-if="kept">
      <header>
        <h1>{{ kept.name }}</h1>
        <span class="state" :class="kept.state">{{ stateWords(kept) }}</span>
        <RouterLink :to="`/stove/${kept.batch_id}`">{{ kept.code }}: its record</RouterLink>
      </header>
      <div v-if="kept.missed" class="warning missed" role="alert">
        <p>
          <b>{{ kept.words }}</b>
        </p>
        <p>What was done about it? It goes into the record.</p>
        <NButton
          v-for="one in actions"
          :key="one"
          size="large"
          :disabled="busy"
          @click="happens({ kind: 'action', words: one, ...ofTray })"
          >{{ one }}</NButton
        >
        <NButton size="large" @click="ask_('thrown')">Thrown away…</NButton>
        <NButton size="large" @click="ask_('action')">Something else…</NButton>
      </div>
      <p v-else-if="kept.words" class="warning" role="alert">{{ kept.words }}</p>
      <div class="two">
        <div class="left">
          <p class="much">
            <b>{{ grams(kept.left_g) }}</b> left of {{ grams(kept.grams) }}
          </p>
          <p>
            {{ session.gradeName(kept.grade) || 'no grade' }}, in {{ kept.trays }} × {{ kept.tray }}. {{ kept.keeps }}.
            {{ kept.allergens.length ? `Contains ${kept.allergens.join(', ')}.` : '' }}
          </p>
          <p v-if="kept.back" class="back">
            To bring it back: <b>{{ millilitres(kept.back.ml) }}</b> hot {{ kept.back.liquid }}, about
            {{ Math.ceil(kept.back.minutes) }} min on its ring, {{ temperature(kept.back.reheat_c) }} in the middle
            within {{ Math.round(kept.back.reheat_minutes) }} min.
          </p>
          <p v-if="kept.freezing" class="quiet">{{ kept.freezing }}.</p>
          <div class="does">
            <NButton
              size="large"
              type="primary"
              :disabled="!kept.left_g || kept.state === 'frozen'"
              @click="ask_('warm')"
              >Warm it up</NButton
            >
            <NButton size="large" :disabled="!kept.left_g" @click="ask_('drawn')">Take out</NButton>
            <NButton size="large" @click="ask_('temperature')">Temperature</NButton>
            <NButton
              v-if="kept.state !== 'gone'"
              size="large"
              :loading="busy"
              @click="happens({ kind: kept.state === 'frozen' ? 'thawed' : 'frozen' })"
              >{{ kept.state === 'frozen' ? 'Out of the freezer' : 'Freeze' }}</NButton
            >
            <NButton size="large" @click="ask_('action')">What was done</NButton>
            <NButton size="large" :disabled="!kept.left_g" @click="ask_('thrown')">Throw away</NButton>
            <NButton size="large" :disabled="!kept.left_g" :loading="busy" @click="labels">{{
              printed ? 'Labels made' : 'New labels'
            }}</NButton>
          </div>
          <form v-if="asking" class="asking" @submit.prevent="say" @keydown.esc.stop="asking = null">
            <input
              v-if="asking !== 'action'"
              v-model="amount"
              v-focus
              class="figure"
              autocomplete="off"
              :placeholder="asking === 'thrown' ? String(Math.round(kept.left_g)) : ''"
              :aria-label="asking === 'temperature' ? `Temperature, ${degrees()}` : 'Grams'"
            /><span v-if="kept.trays > 1 && !['drawn', 'warm'].includes(asking)" class="quiet">tray {{ tray }}</span
            ><span v-if="asking !== 'action'">{{ asking === 'temperature' ? degrees() : 'g' }}</span>
            <input
              v-if="asking !== 'temperature'"
              v-model="words"
              class="words"
              maxlength="120"
              :placeholder="
                { warm: 'what for', drawn: 'what for', thrown: 'why', action: 'into ice, reheated and served…' }[asking]
              "
              :aria-label="{ warm: 'What for', drawn: 'What for', thrown: 'Why', action: 'What was done' }[asking]"
            />
            <NButton size="large" type="primary" attr-type="submit" :disabled="!fits" :loading="busy">{{
              asking === 'warm' ? 'On the stove' : 'Write it down'
            }}</NButton>
            <p v-if="['drawn', 'warm'].includes(asking)" class="quiet">Grams, or as you take it: 600 mL, 3 ladles.</p>
          </form>
          <KeptEvents :kept="kept" @correct="correct" />
        </div>
        <TraysCooling v-model:tray="tray" :kept="kept" @load="load" @trouble="(words) => (trouble = words)" />
      </div>
    </template>
  </div>
</template>

<style scoped>
.place {
  display: flex;
  flex-direction: column;
  gap: 12px;
  padding: 16px 20px;
}
header {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 6px 16px;
}
h1 {
  font-size: 28px;
}
.state {
  padding: 4px 12px;
  border: 2px solid var(--fog4);
  border-radius: 8px;
  font-weight: 700;
}
.over,
.today {
  border-color: var(--russet);
}
.kept {
  border-color: var(--leaf);
}
.two {
  display: grid;
  grid-template-columns: minmax(320px, 2fr) 3fr;
  gap: 20px;
}
.left {
  display: flex;
  flex-direction: column;
  gap: 10px;
}
.missed {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 6px 8px;
}
.missed p {
  flex-basis: 100%;
}
.much {
  font-size: 20px;
}
.much b {
  font-size: 52px;
}
.does,
.asking {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 8px;
}
.asking {
  padding: 12px;
  border: 3px solid var(--russet);
  border-radius: 12px;
  background: var(--white);
}
.figure {
  width: 160px;
  min-height: 64px;
  border: 2px solid var(--fog4);
  border-radius: 10px;
  font: 750 40px var(--text);
  text-align: right;
}
.words {
  flex: 1 1 200px;
  min-height: 48px;
  padding: 4px 10px;
  border: 2px solid var(--fog4);
  border-radius: 8px;
  background: var(--white);
  font: 600 18px var(--text);
}
.back {
  font-size: 18px;
}
.back b {
  font-size: 26px;
}
@media (max-width: 800px) {
  .two {
    grid-template-columns: minmax(0, 1fr);
  }
}
</style>
