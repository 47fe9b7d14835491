<script setup lang="ts">
/** A batch that is over: what came out, all that was done at it and when, and what was read of it. */
import { computed, onMounted, ref } from 'vue'
import { RouterLink } from 'vue-router'
import { api, ask, type Schemas } from '@/api/client'
import { grams, minutes, scaleReads, timeOf } from '@/parts/format'
import { temperature } from '@/parts/ways'
import { useSession } from '@/shell/session'
import { told } from './told'

const props = defineProps<{ batch: Schemas['BatchOut'] }>()
const session = useSession()
const entry = ref<Schemas['EntryOut'] | null>(null)
const read = ref<Schemas['ReadingsOf'] | null>(null)
onMounted(async () => {
  const path = { batch_id: props.batch.id }
  entry.value = await ask(api.GET('/api/journal/of-batch/{batch_id}', { params: { path } })).catch(() => null)
  read.value = await ask(api.GET('/api/stove/{batch_id}/readings', { params: { path } })).catch(() => null)
})
const titles = computed(() => props.batch.cards.map((card) => card.title))
const curves = computed(() =>
  (['scale', 'probe'] as const).flatMap((kind) => {
    const points = read.value?.[kind] ?? []
    if (points.length < 2) return []
    const end = Math.max(...points.map((one) => one.at_min), 1)
    const [low, high] = [Math.min(...points.map((one) => one.value)), Math.max(...points.map((one) => one.value))]
    const y = (value: number) => 110 - (100 * (value - low)) / Math.max(1, high - low)
    const path = points.map((one, n) => `${n ? 'L' : 'M'}${(600 * one.at_min) / end},${y(one.value)}`).join('')
    const told = kind === 'scale' ? scaleReads : temperature
    return [{ kind, path, end, words: `${told(low)} to ${told(high)} in ${minutes(end)}` }]
  }),
)
</script>

<template>
  <section class="record" aria-label="Record">
    <dl v-if="entry">
      <dt>came to</dt>
      <dd>
        {{ entry.actual.mass_g === null ? 'not weighed' : grams(entry.actual.mass_g) }}
        <small>{{ grams(entry.plan.mass_g ?? 0) }} planned</small>
      </dd>
      <dt>thick</dt>
      <dd>
        {{ session.gradeName(entry.actual.grade) || 'not judged' }}
        <small>{{ session.gradeName(entry.plan.grade) || 'no grade' }} planned</small>
      </dd>
      <dt>verdict</dt>
      <dd>{{ entry.verdict_words }}</dd>
      <template v-if="entry.note">
        <dt>next time</dt>
        <dd>{{ entry.note }}</dd>
      </template>
    </dl>
    <figure v-for="curve in curves" :key="curve.kind">
      <svg viewBox="0 0 600 120" preserveAspectRatio="none" role="img" :aria-label="`${curve.kind}: ${curve.words}`">
        <path :d="curve.path" />
      </svg>
      <figcaption class="quiet">{{ curve.kind }}: {{ curve.words }}</figcaption>
    </figure>
    <h3>What happened</h3>
    <p v-if="!batch.acts.length" class="quiet">Nothing was written down on the way.</p>
    <ol>
      <li v-for="act in batch.acts" :key="act.key">
        <span class="quiet">{{ timeOf(act.at) }}</span> {{ told(act, titles) }}
        <span v-if="act.by" class="quiet">{{ act.by }}</span>
      </li>
    </ol>
    <RouterLink v-if="batch.sauce_id" :to="`/sauces/${batch.sauce_id}`">To its sauce</RouterLink>
  </section>
</template>

<style scoped>
.record {
  display: flex;
  flex-direction: column;
  gap: 10px;
  width: 100%;
}
dl {
  display: grid;
  grid-template-columns: auto 1fr;
  gap: 4px 16px;
  margin: 0;
  font-size: 20px;
}
dt {
  color: var(--ink2);
}
dd {
  margin: 0;
  font-weight: 700;
}
small {
  color: var(--ink2);
  font-weight: 400;
}
figure {
  margin: 0;
}
svg {
  width: 100%;
  max-width: 760px;
  height: 120px;
  border-radius: 8px;
  background: var(--white);
}
path {
  fill: none;
  stroke: var(--russet);
  stroke-width: 2.5;
  vector-effect: non-scaling-stroke;
}
ol {
  margin: 0;
  padding: 0;
  list-style: none;
  columns: 24em auto;
}
li {
  padding: 4px 0;
  break-inside: avoid;
}
</style>
