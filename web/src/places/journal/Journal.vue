<script setup lang="ts">
/** What happened: batches, plan beside actual, looked through, set beside each other, cooked again. */
import { useDebounceFn } from '@vueuse/core'
import { NButton, useMessage } from 'naive-ui'
import { computed, onMounted, ref, watch } from 'vue'
import { RouterLink, useRoute, useRouter } from 'vue-router'
import { api, ask, type Schemas } from '@/api/client'
import ChoiceField from '@/parts/ChoiceField.vue'
import { day, grams, minutes, percent } from '@/parts/format'
import ThicknessRibbon from '@/parts/ThicknessRibbon.vue'
import { useSession } from '@/shell/session'
import CorrectEntry from './CorrectEntry.vue'
import JournalTabs from './JournalTabs.vue'
import SauceTogether from './SauceTogether.vue'

const session = useSession()
const route = useRoute()
const router = useRouter()
const message = useMessage()
const entries = ref<Schemas['EntryOut'][]>([])
const total = ref<number | null>(null)
const older = ref<string | null>(null)
const trouble = ref('')
const busy = ref(false)
const choices = ref<Schemas['Choices'] | null>(null)
const picked = ref<number[]>([])

/** What is looked for stands in the address: it outlives a reload and the way back. */
const fields = ['sauce', 'dish', 'cook', 'verdict', 'first', 'last', 'text'] as const
type Field = (typeof fields)[number]
const wanted = computed(
  () => Object.fromEntries(fields.map((field) => [field, String(route.query[field] ?? '')])) as Record<Field, string>,
)
const looking = computed(() => fields.some((field) => wanted.value[field]))
const text = ref(wanted.value.text)
function want(field: Field, value: string | null): void {
  const query = Object.fromEntries(Object.entries({ ...wanted.value, [field]: value ?? '' }).filter(([, one]) => one))
  void router.replace({ query })
}
const typed = useDebounceFn(() => want('text', text.value.trim()), 250)
function all(): void {
  text.value = ''
  void router.replace({ query: {} })
}

let asked = 0
async function load(more = false): Promise<void> {
  const number = (asked += 1)
  busy.value = true
  try {
    const { sauce, dish, ...rest } = wanted.value
    const query = {
      ...Object.fromEntries(Object.entries(rest).filter(([, value]) => value)),
      ...(sauce ? { sauce: Number(sauce) } : {}),
      ...(dish ? { dish: Number(dish) } : {}),
      offset: -new Date().getTimezoneOffset(),
      older: more ? (older.value ?? '') : '',
    }
    const page = await ask(api.GET('/api/journal', { params: { query } }))
    if (number !== asked) return // something else was asked for meanwhile
    entries.value = more ? [...entries.value, ...page.entries] : page.entries
    total.value = page.total
    older.value = page.older
    trouble.value = ''
  } catch (error) {
    if (number === asked) trouble.value = (error as Error).message
  } finally {
    if (number === asked) busy.value = false
  }
}
watch(wanted, () => void load())
onMounted(async () => {
  await load()
  choices.value = await ask(api.GET('/api/journal/choices')).catch(() => null)
})
const anyOf = (of: { key: string; name: string }[], name: string) => [
  { value: '', label: name },
  ...of.map((one) => ({ value: one.key, label: one.name })),
]
const cooks = computed(() => (choices.value?.cooks ?? []).map((name) => ({ key: name, name })))

function pick(id: number): void {
  picked.value = picked.value.includes(id) ? picked.value.filter((one) => one !== id) : [...picked.value.slice(-1), id]
}
const beside = () => router.push({ path: '/journal/beside', query: { one: picked.value[0], other: picked.value[1] } })
async function again(entry: Schemas['EntryOut']): Promise<void> {
  try {
    const path = { entry_id: entry.id }
    const made = await ask(api.POST('/api/journal/{entry_id}/again', { params: { path } }))
    message.success(`Version ${made.version} is as this one turned out; the ones before stay.`)
    await router.push(`/sauces/${made.sauce_id}`)
  } catch (error) {
    message.error((error as Error).message)
  }
}

const correcting = ref<number | null>(null)
function corrected(entry: Schemas['EntryOut']): void {
  entries.value = entries.value.map((one) => (one.id === entry.id ? entry : one))
  correcting.value = null
  message.success('Written so. What stood before stays beside it.')
}
/** What stood before, in a few words. */
function stood(was: Schemas['EntryWas']): string {
  const weight = was.mass_g === null ? 'not weighed' : grams(was.mass_g)
  const thick = session.gradeName(was.grade) || 'not judged'
  return [weight, thick, was.verdict_words, was.note.replace(/\.$/, '')].filter(Boolean).join(', ')
}
function apart(entry: Schemas['EntryOut']): string {
  const off = entry.mass_off_pct
  if (off === null) return ''
  return Math.abs(off) < 0.05 ? 'as planned' : `${off > 0 ? '+' : '−'}${percent(Math.abs(off), 1)}`
}
</script>

<template>
  <div class="place">
    <JournalTabs>
      <span v-if="total" class="quiet">{{ total }} {{ looking ? 'found' : total === 1 ? 'batch' : 'batches' }}</span>
    </JournalTabs>
    <form v-if="total || looking" class="filters" role="search" @submit.prevent>
      <label class="search"
        ><span class="label">in notes and names</span
        ><input v-model="text" type="search" class="box" aria-label="In notes and names" @input="typed"
      /></label>
      <template v-if="choices">
        <ChoiceField
          label="sauce"
          filterable
          :value="wanted.sauce"
          :options="anyOf(choices.sauces, 'any sauce')"
          @change="want('sauce', $event)"
        />
        <ChoiceField
          label="for dish"
          filterable
          :value="wanted.dish"
          :options="anyOf(choices.dishes, 'any dish')"
          @change="want('dish', $event)"
        />
        <ChoiceField
          label="cook"
          :value="wanted.cook"
          :options="anyOf(cooks, 'anybody')"
          @change="want('cook', $event)"
        />
        <ChoiceField
          label="verdict"
          :value="wanted.verdict"
          :options="anyOf(choices.verdicts, 'any')"
          @change="want('verdict', $event)"
        />
      </template>
      <label
        ><span class="label">from</span
        ><input
          type="date"
          class="box"
          aria-label="From day"
          :value="wanted.first"
          @change="want('first', ($event.target as HTMLInputElement).value)"
      /></label>
      <label
        ><span class="label">to</span
        ><input
          type="date"
          class="box"
          aria-label="To day"
          :value="wanted.last"
          @change="want('last', ($event.target as HTMLInputElement).value)"
      /></label>
      <NButton v-if="looking" @click="all">All of them</NButton>
    </form>
    <p v-if="trouble" class="problem" role="alert">
      {{ trouble }} <NButton size="small" @click="load()">Try again</NButton>
    </p>
    <SauceTogether v-if="wanted.sauce" :key="wanted.sauce" :sauce="Number(wanted.sauce)" />
    <p v-if="total === 0 && looking" class="empty">No batch is like that.</p>
    <p v-else-if="total === 0" class="empty">
      Nothing written down yet. Cook a saved sauce to its end: weigh it, pick the spoon it reached, and it stands here
      beside its plan.
    </p>
    <ol>
      <li v-for="entry in entries" :key="entry.id" class="sheet">
        <div class="what">
          <span class="quiet"
            >{{ day(entry.made_at) }}<template v-if="entry.cook">, {{ entry.cook }}</template
            ><template v-if="entry.by && entry.by !== entry.cook">, written by {{ entry.by }}</template
            ><template v-if="entry.session"> (signed in: {{ entry.session }})</template></span
          >
          <h2>
            <RouterLink v-if="entry.sauce_id" :to="`/sauces/${entry.sauce_id}`">{{ entry.name }}</RouterLink>
            <template v-else>{{ entry.name }}</template>
          </h2>
          <span v-if="entry.version" class="quiet">version {{ entry.version }}</span>
          <span v-if="entry.service" class="quiet">
            for <RouterLink :to="`/service/${entry.service_id}`">{{ entry.service }}</RouterLink></span
          >
        </div>
        <dl>
          <dt>weight</dt>
          <dd>
            <span v-if="entry.plan.mass_g !== null" class="quiet">{{ grams(entry.plan.mass_g) }}</span>
            <b>{{ entry.actual.mass_g === null ? 'not weighed' : grams(entry.actual.mass_g) }}</b>
            <small>{{ apart(entry) }}</small>
          </dd>
          <dt>thickness</dt>
          <dd>
            <span v-if="entry.plan.mass_g !== null" class="quiet">{{
              session.gradeName(entry.plan.grade) || 'no grade'
            }}</span>
            <b>{{ session.gradeName(entry.actual.grade) || 'not judged' }}</b>
          </dd>
          <dt>time</dt>
          <dd>
            <span class="quiet">{{ entry.plan.minutes === null ? '' : minutes(entry.plan.minutes) }}</span>
            <b>{{ entry.actual.minutes === null ? '' : minutes(entry.actual.minutes) }}</b>
          </dd>
        </dl>
        <ThicknessRibbon
          slim
          class="ribbon"
          :viscosity="entry.plan.viscosity_pa_s"
          :low="entry.plan_low_pa_s"
          :high="entry.plan_high_pa_s"
          :ticks="entry.actual.viscosity_pa_s ? [entry.actual.viscosity_pa_s] : []"
        />
        <p class="verdict" :class="entry.verdict">{{ entry.verdict_words }}</p>
        <div class="said">
          <p v-if="entry.note" class="note">{{ entry.note }}</p>
          <p v-for="one in entry.corrections" :key="one.at" class="quiet corrected">
            Corrected {{ day(one.at) }} by {{ one.by }}: {{ one.why }}. Before: {{ stood(one.was) }}.
          </p>
          <p v-for="mend in entry.mends" :key="mend" class="quiet">Mended. {{ mend }}</p>
          <div v-if="entry.photos.length" class="photos">
            <RouterLink v-for="photo in entry.photos.slice(0, 3)" :key="photo" :to="`/stove/${entry.batch_id}`">
              <img :src="`/api/photos/${photo}`" alt="Photograph of the batch" loading="lazy" />
            </RouterLink>
          </div>
        </div>
        <div class="acts">
          <RouterLink class="act" :to="`/stove/${entry.batch_id}`">Its record</RouterLink>
          <NButton @click="again(entry)">Cook it again as it turned out</NButton>
          <NButton :aria-pressed="picked.includes(entry.id)" @click="pick(entry.id)">{{
            picked.includes(entry.id) ? '✓ picked' : 'Set beside…'
          }}</NButton>
          <NButton v-if="correcting !== entry.id" quaternary @click="correcting = entry.id">Correct…</NButton>
        </div>
        <CorrectEntry
          v-if="correcting === entry.id && choices"
          :entry="entry"
          :verdicts="choices.verdicts"
          @corrected="corrected"
          @close="correcting = null"
        />
      </li>
    </ol>
    <p v-if="entries.length" class="quiet key">
      Grey is the plan, bold what came out. On the ribbon the wedge is predicted, the bar is the spoon you picked.
    </p>
    <NButton v-if="older" :loading="busy" @click="load(true)">Older batches</NButton>
    <div v-if="picked.length" class="picked" role="status">
      <span v-if="picked.length === 1">Pick one more to set beside it.</span>
      <NButton v-else type="primary" size="large" @click="beside">Set the two beside each other</NButton>
      <NButton quaternary @click="picked = []">Neither</NButton>
    </div>
  </div>
</template>

<style scoped>
.place {
  max-width: 1200px;
  padding: 16px 20px 24px;
}
.filters {
  display: flex;
  flex-wrap: wrap;
  align-items: end;
  gap: 6px 12px;
  margin-bottom: 12px;
}
.filters > label {
  flex: 1 1 132px;
  max-width: 220px;
  min-width: 0;
}
.box {
  width: 100%;
  min-height: 44px;
}
ol {
  display: flex;
  flex-direction: column;
  gap: 10px;
  margin: 0 0 12px;
  padding: 0;
  list-style: none;
}
li {
  display: grid;
  grid-template:
    'what dl verdict' auto 'note ribbon verdict' auto 'acts acts acts' auto / minmax(220px, 1fr) minmax(360px, 1.3fr)
    150px;
  gap: 4px 20px;
  padding: 12px 16px;
}
.what {
  grid-area: what;
}
h2 {
  font-size: 20px;
}
h2 a {
  color: inherit;
  text-decoration: none;
}
h2 a:hover {
  color: var(--russet);
}
dl {
  grid-area: dl;
  display: grid;
  grid-template-columns: 80px 1fr;
  align-content: start;
  margin: 0;
}
dt {
  color: var(--ink2);
}
dd {
  display: grid;
  grid-template-columns: 110px 110px auto;
  margin: 0;
  font-size: 17px;
}
.ribbon {
  grid-area: ribbon;
  align-self: end;
}
.verdict {
  grid-area: verdict;
  align-self: start;
  justify-self: end;
  padding: 6px 12px;
  border-radius: 999px;
  border: 2px solid var(--fog4);
  font-weight: 700;
  text-align: center;
}
.verdict.again {
  border-color: var(--leaf);
  background: var(--leaf-wash);
}
.verdict.not-so {
  border-color: var(--danger);
}
.said {
  grid-area: note;
}
.note {
  align-self: end;
}
.note::before {
  content: '“';
}
.note::after {
  content: '”';
}
.acts {
  grid-area: acts;
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 6px 10px;
}
.act {
  display: flex;
  align-items: center;
  min-height: 44px;
  padding-right: 8px;
  font-weight: 600;
}
.photos {
  display: flex;
  gap: 6px;
  margin-top: 4px;
}
.photos img {
  width: 84px;
  height: 63px;
  border-radius: 6px;
  object-fit: cover;
}
.picked {
  position: sticky;
  bottom: 8px;
  display: flex;
  align-items: center;
  gap: 10px;
  width: fit-content;
  margin-top: 8px;
  padding: 8px 14px;
  border: 2px solid var(--russet);
  border-radius: 12px;
  background: var(--fog0);
}
.empty {
  max-width: 640px;
  font-size: 20px;
}
.key {
  margin-bottom: 10px;
  font-size: 14px;
}
@media (max-width: 860px) {
  li {
    display: flex;
    flex-direction: column;
  }
  .verdict {
    align-self: start;
    order: -1;
  }
  dd {
    grid-template-columns: 1fr 1fr auto;
    gap: 8px;
  }
}
</style>
