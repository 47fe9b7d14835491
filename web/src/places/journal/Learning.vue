<script setup lang="ts">
/** What this kitchen's batches teach: before and after, by how many; gone by when a cook says so. */
import { NButton, useMessage } from 'naive-ui'
import { computed, ref } from 'vue'
import { api, ask, type Schemas } from '@/api/client'
import { day, number } from '@/parts/format'
import { fixed } from '@/parts/ways'
import { useList } from '@/shell/list'
import JournalTabs from './JournalTabs.vue'
import RecordsPicture from './RecordsPicture.vue'

type Taught = Schemas['Taught']
const message = useMessage()
const told = ref<Schemas['LearningOut'] | null>(null)
const { trouble, load, tell } = useList(async () => {
  told.value = await ask(api.GET('/api/journal/learning'))
})
const thing = (one: Taught) => ({ kind: one.kind as 'pace', of: one.of, at: one.at })
const key = (one: Taught) => `${one.kind} ${one.of} ${one.at}`
const groups = computed(() => [
  { title: 'Ready to go by', things: (told.value?.things ?? []).filter((one) => one.ready) },
  { title: 'Gone by', things: (told.value?.things ?? []).filter((one) => !one.ready && one.gone_by !== null) },
  { title: 'Still too little', things: (told.value?.things ?? []).filter((one) => !one.ready && one.gone_by === null) },
])
const goBy = (one: Taught) =>
  tell(async () => {
    told.value = await ask(api.POST('/api/journal/learning', { body: thing(one) }))
    message.success('Gone by from now on. What was written down stays as it was.')
  })
const undo = (one: Taught, all_of_it: boolean) =>
  tell(async () => {
    told.value = await ask(api.POST('/api/journal/learning/undo', { body: { ...thing(one), all_of_it } }))
  })
const kinds: Record<string, string> = {
  pace: 'Pans',
  strength: 'Flour',
  film: 'Pots',
  served: 'Portions',
  work: 'At the board',
}
const figure = (value: number, unit: string) =>
  unit === 'of wheat flour'
    ? `× ${number(Number(value.toFixed(2)))}`
    : `${number(Number(value.toPrecision(3)))} ${unit}`
/** The figure without its unit, where the same unit follows at once. */
const bare = (one: Taught, value: number) => figure(value, one.unit).replace(` ${one.unit}`, '')
const odd = (one: Taught) => one.seen.filter((seen) => seen.odd)
</script>

<template>
  <div class="place">
    <JournalTabs />
    <p v-if="trouble" class="problem" role="alert">
      {{ trouble }} <NButton size="small" @click="load">Try again</NButton>
    </p>
    <p v-if="told && !told.things.length" class="empty">
      Nothing yet. Weigh batches at their end and pick the spoon they reached: after three, this kitchen knows how fast
      a pan of its boils off and how strong its flour is, and amounts, minutes and edges follow when you say so.
    </p>
    <p v-if="told?.to_read" class="quiet">{{ told.to_read }} older batches are still to be read: open this again.</p>
    <template v-for="group in groups" :key="group.title">
      <section v-if="group.things.length" :aria-label="group.title">
        <h2>{{ group.title }}</h2>
        <ul>
          <li v-for="one in group.things" :key="key(one)" class="sheet" :class="{ ready: one.ready }">
            <div class="what">
              <span class="label">{{ kinds[one.kind] }}</span>
              <h3>{{ one.words }}</h3>
              <p class="quiet">
                {{ one.records }} {{ one.records === 1 ? 'record' : 'records' }}; nine times in ten between
                {{ bare(one, one.value_low) }} and
                {{ figure(one.value_high, one.unit) }}
              </p>
              <p v-if="one.changed_at" class="warning">It was another before {{ day(one.changed_at) }}.</p>
              <p v-if="odd(one).length" class="quiet">
                {{ odd(one).length === 1 ? 'One fits' : `${odd(one).length} fit` }} no other and
                {{ odd(one).length === 1 ? 'counts' : 'count' }} little: another pan, or weighed with it?
                <template v-for="(seen, n) in odd(one)" :key="n"
                  ><RouterLink v-if="seen.batch_id" :to="`/stove/${seen.batch_id}`">{{ day(seen.at) }}</RouterLink
                  ><template v-else>{{ day(seen.at) }}</template
                  >{{ n < odd(one).length - 1 ? ', ' : '' }}</template
                >
              </p>
            </div>
            <div class="figures">
              <span class="quiet">{{ bare(one, one.now) }}</span>
              <span aria-hidden="true">→</span>
              <b>{{ figure(one.value, one.unit) }}</b>
              <p v-if="one.edge && one.edge_usual" class="quiet">
                a thickness is known to × {{ fixed(one.edge, 2) }} either way, not × {{ fixed(one.edge_usual, 2) }}
              </p>
            </div>
            <RecordsPicture class="picture" :taught="one" />
            <div class="buttons">
              <NButton v-if="one.ready" type="primary" size="large" @click="goBy(one)">Go by it</NButton>
              <span v-else-if="one.why_not" class="quiet">{{ one.why_not }}</span>
              <template v-if="one.gone_by !== null">
                <NButton @click="undo(one, false)">Undo</NButton>
                <NButton quaternary @click="undo(one, true)">Back to the usual</NButton>
              </template>
            </div>
          </li>
        </ul>
      </section>
    </template>
    <p v-if="told?.things.length" class="quiet">
      Told against the usual figures, and nothing is gone by until you say so. What you set by hand in the larder comes
      first.
    </p>
  </div>
</template>

<style scoped>
.place {
  max-width: 1200px;
  padding: 16px 20px 24px;
}
section {
  margin-bottom: 18px;
}
h2 {
  margin-bottom: 8px;
  font-size: 21px;
}
ul {
  display: flex;
  flex-direction: column;
  gap: 10px;
  margin: 0;
  padding: 0;
  list-style: none;
}
li {
  display: grid;
  grid-template:
    'what figures picture' auto 'what buttons picture' auto / minmax(260px, 1.2fr) minmax(230px, 1fr)
    minmax(240px, 1fr);
  gap: 6px 22px;
  padding: 12px 16px;
}
li.ready {
  border-color: var(--russet);
}
.what {
  grid-area: what;
}
h3 {
  font-size: 20px;
}
.figures {
  grid-area: figures;
  font-size: 19px;
}
.figures b {
  font: 600 clamp(22px, 7vw, 30px) var(--display);
}
.figures span {
  margin-right: 8px;
}
.figures p {
  font-size: 15px;
}
.picture {
  grid-area: picture;
}
.buttons {
  grid-area: buttons;
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 8px;
}
.empty {
  max-width: 640px;
  font-size: 20px;
}
@media (max-width: 860px) {
  li {
    display: flex;
    flex-direction: column;
  }
}
</style>
