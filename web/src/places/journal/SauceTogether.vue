<script setup lang="ts">
/** A sauce's batches put together: verdicts, how far they come out, what the notes say again and again. */
import { onMounted, ref } from 'vue'
import { api, ask, type Schemas } from '@/api/client'
import { fixed } from '@/parts/ways'
import { percent } from '@/parts/format'

const props = defineProps<{ sauce: number }>()
const told = ref<Schemas['SauceSaid'] | null>(null)
onMounted(async () => {
  const path = { sauce_id: props.sauce }
  told.value = await ask(api.GET('/api/journal/of-sauce/{sauce_id}', { params: { path } })).catch(() => null)
})
const names: Record<string, string> = { again: 'again just so', nearly: 'nearly', 'not-so': 'not like this' }
const share = (value: number) =>
  Math.abs(value) < 0.5 ? 'as planned' : `${value > 0 ? '+' : '−'}${percent(Math.abs(value))}`
function thick(factor: number): string {
  if (factor > 0.95 && factor < 1.05) return 'as thick as planned'
  return factor > 1 ? `${fixed(factor, 1)} times as thick as planned` : `${fixed(factor, 1)} of the thickness planned`
}
</script>

<template>
  <section v-if="told?.batches" class="together" aria-label="Put together">
    <div>
      <span class="label">{{ told.batches }} batches put together</span>
      <p>
        <template v-for="(times, verdict) in told.verdicts" :key="verdict"
          ><span v-if="times" class="count"
            ><b>{{ times }}</b> {{ names[verdict] }}</span
          ></template
        >
      </p>
      <p class="quiet">
        <template v-if="told.mass_off_pct !== null">weight {{ share(told.mass_off_pct) }}</template
        ><template v-if="told.mass_off_pct !== null && told.thickness_factor !== null">, </template
        ><template v-if="told.thickness_factor !== null">{{ thick(told.thickness_factor) }}</template>
        in the middle
      </p>
    </div>
    <ul v-if="told.said.length" aria-label="Said again and again">
      <li v-for="one in told.said" :key="one.words">
        <b>{{ one.words }}</b>
        <span v-for="(note, n) in one.notes" :key="n" class="quiet">“{{ note }}”</span>
      </li>
    </ul>
    <p v-else class="quiet">No two notes say the same yet.</p>
  </section>
</template>

<style scoped>
.together {
  display: grid;
  grid-template-columns: minmax(220px, 1fr) minmax(260px, 1.6fr);
  gap: 10px 24px;
  margin-bottom: 12px;
  padding: 12px 16px;
  border-left: 6px solid var(--russet);
  background: var(--fog0);
}
.count {
  margin-right: 16px;
}
.count b {
  font: 600 24px var(--display);
}
ul {
  margin: 0;
  padding: 0;
  list-style: none;
}
li {
  display: flex;
  flex-wrap: wrap;
  gap: 2px 10px;
  padding: 2px 0;
}
@media (max-width: 700px) {
  .together {
    grid-template-columns: 1fr;
  }
}
</style>
