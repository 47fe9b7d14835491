<script setup lang="ts">
/** What happened: batches, plan beside actual. */
import { NButton } from 'naive-ui'
import { onMounted, ref } from 'vue'
import { RouterLink } from 'vue-router'
import { api, ask, type Schemas } from '@/api/client'
import { day, grams, minutes } from '@/parts/format'
import ThicknessRibbon from '@/parts/ThicknessRibbon.vue'
import { useSession } from '@/shell/session'

const session = useSession()
const entries = ref<Schemas['EntryOut'][]>([])
const total = ref<number | null>(null)
const older = ref<string | null>(null)
const trouble = ref('')
const busy = ref(false)

async function load(): Promise<void> {
  busy.value = true
  try {
    const page = await ask(api.GET('/api/journal', { params: { query: { older: older.value ?? '' } } }))
    entries.value = [...entries.value, ...page.entries]
    total.value = page.total
    older.value = page.older
    trouble.value = ''
  } catch (error) {
    trouble.value = (error as Error).message
  } finally {
    busy.value = false
  }
}
onMounted(load)

function apart(entry: Schemas['EntryOut']): string {
  const off = entry.mass_off_pct
  if (off === null) return ''
  const shown = Math.abs(off).toFixed(1)
  return shown === '0.0' ? 'as planned' : `${off > 0 ? '+' : '−'}${shown} %`
}
</script>

<template>
  <div class="place">
    <header>
      <h1>Journal</h1>
      <span v-if="total" class="quiet">{{ total }} batches</span>
    </header>
    <p v-if="trouble" class="problem" role="alert">
      {{ trouble }} <NButton size="small" @click="load">Try again</NButton>
    </p>
    <p v-if="total === 0" class="empty">
      Nothing written down yet. Cook a saved sauce to its end: weigh it, pick the spoon it reached, and it stands here
      beside its plan.
    </p>
    <ol>
      <li v-for="entry in entries" :key="entry.id" class="sheet">
        <div class="what">
          <span class="quiet">{{ day(entry.made_at) }}</span>
          <h2>
            <RouterLink v-if="entry.sauce_id" :to="`/sauces/${entry.sauce_id}`">{{ entry.name }}</RouterLink>
            <template v-else>{{ entry.name }}</template>
          </h2>
          <RouterLink :to="`/stove/${entry.batch_id}`">Its record</RouterLink>
          <span v-if="entry.version" class="quiet">version {{ entry.version }}</span>
          <span v-if="entry.service" class="quiet"
            >for <RouterLink :to="`/service/${entry.service_id}`">{{ entry.service }}</RouterLink></span
          >
        </div>
        <dl>
          <dt>weight</dt>
          <dd>
            <span class="quiet">{{ grams(entry.plan.mass_g ?? 0) }}</span>
            <b>{{ entry.actual.mass_g === null ? 'not weighed' : grams(entry.actual.mass_g) }}</b>
            <small>{{ apart(entry) }}</small>
          </dd>
          <dt>thickness</dt>
          <dd>
            <span class="quiet">{{ session.gradeName(entry.plan.grade) || 'no grade' }}</span>
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
          <p v-for="mend in entry.mends" :key="mend" class="quiet">Mended. {{ mend }}</p>
        </div>
      </li>
    </ol>
    <p v-if="entries.length" class="quiet key">
      Grey is the plan, bold what came out. On the ribbon the wedge is predicted, the bar is the spoon you picked.
    </p>
    <NButton v-if="older" :loading="busy" @click="load">Older batches</NButton>
  </div>
</template>

<style scoped>
.place {
  max-width: 1200px;
  padding: 16px 20px 24px;
}
header {
  display: flex;
  align-items: baseline;
  gap: 14px;
  margin-bottom: 12px;
}
h1 {
  font-size: 30px;
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
  grid-template: 'what dl verdict' auto 'note ribbon verdict' auto / minmax(220px, 1fr) minmax(360px, 1.3fr) 150px;
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
