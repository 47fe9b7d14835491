<script setup lang="ts">
/** Kitchen measures: what a knob, a glass, your own ladle holds, and how far hands differ. */
import { NButton, useMessage } from 'naive-ui'
import { computed, reactive } from 'vue'
import { api, ask, type Schemas } from '@/api/client'
import { number } from '@/parts/format'
import { ingredientOption } from '@/parts/options'
import ChoiceField from '@/parts/ChoiceField.vue'
import ProblemLine from '@/parts/ProblemLine.vue'
import TextField from '@/parts/TextField.vue'
import { useForm } from '@/shell/form'
import { useOffList } from '@/shell/offList'
import { useSession } from '@/shell/session'

const session = useSession()
const message = useMessage()
const offList = useOffList()
const fresh = () => ({
  name: '',
  of: '',
  size: '',
  unit: 'mL',
  packing: '1',
  spread_pct: '10',
  kind: 'ladle',
  words: '',
})
const entry = reactive(fresh())
const form = useForm()
const kinds = [
  { value: 'ladle', label: 'ladle or scoop' },
  { value: 'spoon', label: 'spoon or cup' },
  { value: 'hand', label: 'by hand' },
  { value: 'pack', label: 'as sold' },
]
const forWhat = computed(() => [
  { value: '', label: 'anything' },
  ...Object.entries(session.catalogue?.roles ?? {}).map(([value, label]) => ({ value, label })),
  ...[...session.ingredients.values()].map(ingredientOption),
])
const ofName = (of: string) => session.ingredients.get(of)?.name ?? session.catalogue?.roles[of] ?? 'anything'
const rows = computed(() =>
  [...(session.catalogue?.measures ?? [])].sort((a, b) => Number(b.id !== null) - Number(a.id !== null)),
)
const keep = () =>
  form.run(async () => {
    await ask(api.PUT('/api/larder/measures', { body: { ...entry } }))
    Object.assign(entry, fresh())
    await session.reload()
  })
function change(row: Schemas['MeasureOut']): void {
  Object.assign(entry, {
    ...row,
    size: String(row.size),
    packing: String(row.packing),
    spread_pct: String(row.spread_pct),
  })
}
async function remove(row: Schemas['MeasureOut']): Promise<void> {
  try {
    await ask(api.DELETE('/api/larder/measures/{measure_id}', { params: { path: { measure_id: row.id! } } }))
    await session.reload()
    const body = { ...row, size: String(row.size), packing: String(row.packing), spread_pct: String(row.spread_pct) }
    offList(row.name, async () => {
      await ask(api.PUT('/api/larder/measures', { body })).catch((error: Error) => message.error(error.message))
      await session.reload()
    })
  } catch (error) {
    message.error((error as Error).message)
  }
}
</script>

<template>
  <div class="measures">
    <section>
      <p class="quiet">
        Type an amount such as “2 knobs” or “1 scooped cup” in any sheet. The sheet keeps the grams and how vague they
        are; a vague measure widens the soft edge of the ribbon. Name one “tbsp” with 20 mL if your spoons are large.
      </p>
      <div class="scroll sheet">
        <table class="grid">
          <thead>
            <tr>
              <th>Measure</th>
              <th>of</th>
              <th class="n">holds</th>
              <th class="n">hands differ by</th>
              <th />
              <th />
            </tr>
          </thead>
          <tbody>
            <tr v-for="row in rows" :key="row.name + row.of">
              <td>
                <b>{{ row.name }}</b><span v-if="row.id !== null" class="own">yours</span>
              </td>
              <td>{{ ofName(row.of) }}</td>
              <td class="n">
                {{ number(row.size) }} {{ row.unit
                }}<template v-if="row.packing !== 1"> × {{ number(row.packing) }}</template>
              </td>
              <td class="n">± {{ number(row.spread_pct) }} %</td>
              <td class="quiet words">{{ row.words }}</td>
              <td class="n">
                <NButton quaternary :aria-label="`Change ${row.name}`" @click="change(row)">Change</NButton>
                <NButton v-if="row.id !== null" quaternary :aria-label="`Take ${row.name} away`" @click="remove(row)"
                  >×</NButton
                >
              </td>
            </tr>
          </tbody>
        </table>
      </div>
    </section>
    <form class="sheet" @submit.prevent="keep">
      <h3>Your own measure</h3>
      <TextField
        :value="entry.name"
        label="What you call it"
        name="Measure name"
        :problem="form.problemAt('name')"
        @change="entry.name = $event"
      />
      <ChoiceField
        :value="entry.of"
        label="Of"
        name="Measure of"
        filterable
        :options="forWhat"
        @change="entry.of = $event"
      />
      <ProblemLine :problem="form.problemAt('of')" />
      <div class="pair">
        <TextField :value="entry.size" label="Holds" name="Measure holds" numeric @change="entry.size = $event" />
        <ChoiceField
          :value="entry.unit"
          label="in"
          name="Measure unit"
          :options="['mL', 'g'].map((u) => ({ value: u, label: u }))"
          @change="entry.unit = $event"
        />
      </div>
      <ProblemLine :problem="form.problemAt('size')" />
      <ChoiceField
        :value="entry.kind"
        label="Kind"
        name="Measure kind"
        :options="kinds"
        @change="entry.kind = $event"
      />
      <div class="pair">
        <TextField
          :value="entry.spread_pct"
          label="Hands differ by, ± %"
          name="Measure spread"
          numeric
          @change="entry.spread_pct = $event"
        />
        <TextField
          :value="entry.packing"
          label="Packed, × spooned"
          name="Measure packing"
          numeric
          @change="entry.packing = $event"
        />
      </div>
      <ProblemLine :problem="form.problemAt('spread_pct') ?? form.problemAt('packing')" />
      <p v-if="form.trouble.value" class="problem" role="alert">{{ form.trouble.value }}</p>
      <NButton type="primary" attr-type="submit">Keep it</NButton>
    </form>
  </div>
</template>

<style scoped>
.measures {
  display: grid;
  grid-template-columns: minmax(0, 1fr) 320px;
  gap: 20px;
  align-items: start;
}
section {
  display: flex;
  flex-direction: column;
  gap: 8px;
}
.words {
  font-size: 14px;
}
form {
  display: flex;
  flex-direction: column;
  gap: 8px;
  padding: 14px;
}
.pair {
  display: grid;
  grid-template-columns: 1fr 1fr;
  gap: 10px;
  align-items: end;
}
@media (max-width: 1000px) {
  .measures {
    grid-template-columns: minmax(0, 1fr);
  }
}
</style>
