<script setup lang="ts">
/** What is cooling and what is in the fridge, oldest first; what could be put away; the rules; the record. */
import { NButton } from 'naive-ui'
import { computed, ref } from 'vue'
import { RouterLink, useRouter } from 'vue-router'
import { api, ask, type Schemas } from '@/api/client'
import ChoiceField from '@/parts/ChoiceField.vue'
import { grams, isoDay } from '@/parts/format'
import { temperature } from '@/parts/ways'
import { useList } from '@/shell/list'
import { useListen } from '@/shell/listen'
import { useSession } from '@/shell/session'
import HeatingThrough from './HeatingThrough.vue'
import HeldHot from './HeldHot.vue'
import OwnRules from './OwnRules.vue'
import { stateWords } from './words'

const session = useSession()
const router = useRouter()
const lines = ref<Schemas['KeptLine'][]>([])
const where = ref<Schemas['Where'] | null>(null)
const rules = ref<Schemas['RulesOut'] | null>(null)
const { trouble, load, tell } = useList(async () => {
  // All at once: what comes later would push away what is about to be pressed.
  const [kept, from, by] = await Promise.all([
    ask(api.GET('/api/keeping')),
    ask(api.GET('/api/keeping/where')),
    ask(api.GET('/api/keeping/rules')),
  ])
  lines.value = kept
  where.value = from
  rules.value = by
})
const listen = useListen()
listen.onKept(() => void load())
const choose = (key: string) => tell(() => ask(api.PUT('/api/keeping/rules', { body: { rules: { key } } })))
const options = computed(() => [
  ...(rules.value?.shipped ?? []).map((one) => ({ value: one.key ?? '', label: one.name })),
  ...(rules.value?.chosen.key === 'own' ? [{ value: 'own', label: rules.value.chosen.name }] : []),
])
const writing = ref(false)
const code = ref('')
const lost = ref('')
async function scan(): Promise<void> {
  lost.value = ''
  const path = { code: code.value.trim().split('/').at(-1) ?? '' }
  try {
    const kept = await ask(api.GET('/api/keeping/code/{code}', { params: { path } }))
    await router.push(`/keeping/${kept.id}`)
  } catch (error) {
    lost.value = (error as Error).message
  }
}
const today = new Date()
const iso = (back: number) => isoDay(new Date(today.getTime() - back * 86_400_000))
const offset = -today.getTimezoneOffset()
const csv = (back: number) => `/api/keeping/records.csv?first=${iso(back)}&last=${iso(0)}&offset=${offset}`
const age = (days: number) => (days ? `${days} d old` : 'of today')
</script>

<template>
  <div class="place">
    <header>
      <h1>Keeping</h1>
      <form @submit.prevent="scan">
        <input v-model="code" class="box" placeholder="B12" aria-label="Code of a label" />
        <NButton attr-type="submit" :disabled="!code.trim()">Open by its label</NButton>
        <span v-if="lost" class="problem" role="alert">{{ lost }}</span>
      </form>
    </header>
    <p v-if="trouble" class="problem" role="alert">
      {{ trouble }} <NButton size="small" @click="load">Try again</NButton>
    </p>
    <section v-if="where?.possible.length" class="possible" aria-label="To put away">
      <span class="label">Made today, not put away</span>
      <NButton
        v-for="one in where.possible"
        :key="one.batch_id"
        size="large"
        @click="router.push(`/keeping/put/${one.batch_id}`)"
        >{{ one.name }}, {{ grams(one.grams) }}</NButton
      >
    </section>
    <p v-if="rules && !lines.length" class="empty">
      Nothing is kept. Finish a sauce at the stove and put it away: how quickly it cools is reckoned for your trays, and
      what is left is here until it is used, frozen or thrown away.
    </p>
    <ul class="lines">
      <li v-for="line in lines" :key="line.id">
        <RouterLink :to="`/keeping/${line.id}`" class="sheet" :class="line.state">
          <b class="much">{{ grams(line.left_g) }}</b>
          <span class="name"
            ><b>{{ line.name }}</b>
            <span class="quiet"
              >{{ session.gradeName(line.grade) }}, {{ line.trays }} × {{ line.tray }}, {{ age(line.age_days) }}</span
            >
            <span v-if="line.for_when" class="quiet">for {{ line.for_when }}</span>
          </span>
          <span class="until"
            ><b>{{ stateWords(line) }}</b
            ><span v-if="line.words" class="warning">{{ line.words }}</span></span
          >
        </RouterLink>
      </li>
    </ul>
    <section v-if="rules" class="rules">
      <ChoiceField
        label="Rules for cooling and keeping"
        :value="rules.chosen.key"
        :options="options"
        @change="choose"
      />
      <NButton @click="writing = true">{{
        rules.chosen.key === 'own' ? 'Change your own' : 'Rules of your own…'
      }}</NButton>
      <OwnRules v-model:show="writing" :from="rules.chosen" @kept="load" />
      <p class="quiet">
        Hot at {{ temperature(rules.chosen.hot_c) }} or above, heated again to
        {{ temperature(rules.chosen.reheat_c) }} in the middle, kept at {{ temperature(rules.chosen.chilled_c) }} for
        {{ rules.chosen.chilled_days }} days. Usual figures, not the law where you stand: local rules and your own plan
        come first.
      </p>
      <div class="record">
        <span class="label">Record of temperatures and batches</span>
        <a class="csv" :href="csv(0)">Today as CSV</a>
        <a class="csv" :href="csv(30)">31 days as CSV</a>
        <RouterLink class="csv" to="/keeping/record">To read and print</RouterLink>
      </div>
    </section>
    <HeldHot v-if="where?.possible.length" :key="where.possible[0]!.batch_id" :possible="where.possible" />
    <HeatingThrough v-if="rules" :key="`${rules.chosen.key} ${rules.chosen.reheat_c}`" />
  </div>
</template>

<style scoped>
.place {
  display: flex;
  flex-direction: column;
  gap: 14px;
  max-width: 1200px;
  padding: 16px 20px;
}
header,
header form,
.possible,
.record {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 8px 14px;
}
header {
  justify-content: space-between;
}
h1 {
  font-size: 30px;
}
.box {
  width: 130px;
  min-height: 44px;
}
.label {
  flex-basis: 100%;
}
/* A long name is told whole, on two lines where it must. */
.possible :deep(.n-button) {
  max-width: 100%;
  height: auto;
  min-height: 64px;
  padding-block: 6px;
  white-space: normal;
  text-align: left;
}
.lines {
  display: flex;
  flex-direction: column;
  gap: 8px;
  margin: 0;
  padding: 0;
  list-style: none;
}
.lines a {
  display: grid;
  grid-template-columns: 150px 1fr auto;
  align-items: center;
  gap: 4px 18px;
  padding: 10px 16px;
  border-left: 8px solid var(--leaf);
  color: inherit;
  text-decoration: none;
}
.lines .today,
.lines .over {
  border-left-color: var(--russet);
}
.lines .cooling {
  border-left-color: var(--butter);
}
.lines .frozen {
  border-left-color: var(--fog4);
}
.much {
  font-size: 32px;
  text-align: right;
}
.name,
.until {
  display: flex;
  flex-direction: column;
  font-size: 18px;
}
.until {
  align-items: flex-end;
  max-width: 340px;
}
.csv {
  display: inline-flex;
  align-items: center;
  min-height: 44px;
  font-weight: 600;
}
.empty {
  max-width: 60ch;
  font-size: 20px;
}
@media (max-width: 700px) {
  .lines a {
    grid-template-columns: auto 1fr;
  }
  .until {
    grid-column: 1 / -1;
    align-items: flex-start;
  }
  .much {
    font-size: 24px;
  }
}
.rules {
  display: flex;
  flex-wrap: wrap;
  align-items: end;
  gap: 8px 12px;
}
.rules > label {
  flex: 0 1 380px;
}
.rules > p,
.rules > .record {
  flex-basis: 100%;
}
</style>
