<script setup lang="ts">
/** One row of the larder, to correct or to add; a change says first which sauces move. */
import { useDebounceFn } from '@vueuse/core'
import { NButton, NModal, NSelect, useMessage } from 'naive-ui'
import { computed, h, ref, watch } from 'vue'
import { api, ask, Refused, Taken, type Problem, type Schemas } from '@/api/client'
import { useSession } from '@/shell/session'

/** The key of a row to edit, '' for a new one, null: closed. */
const props = defineProps<{ editing: string | null }>()
const emit = defineEmits<{ close: [] }>()
const session = useSession()
const message = useMessage()

const row = ref<Record<string, string>>({})
const loaded = ref<Schemas['RowOut'] | null>(null)
const problems = ref<Problem[]>([])
const trouble = ref('')
const moved = ref<Schemas['Moved'][] | null>(null)
const changed = computed(() => JSON.stringify(row.value) !== JSON.stringify(loaded.value?.row ?? {}))

const blank: Record<string, string> = {
  key: '',
  name: '',
  role: 'solid',
  water: '100',
  density: '1',
  cup_density: '1',
  origin: 'label',
  spread_pct: '10',
  form: '',
}
watch(
  () => props.editing,
  async (key) => {
    problems.value = []
    trouble.value = ''
    moved.value = null
    loaded.value = null
    if (key === null) return
    if (key === '') {
      row.value = { ...blank }
      return
    }
    try {
      loaded.value = await ask(api.GET('/api/larder/ingredients/{key}', { params: { path: { key } } }))
      row.value = { ...loaded.value.row }
    } catch (error) {
      trouble.value = (error as Error).message
    }
  },
)
const groups: { name: string; fields: { key: string; label: string; unit: string }[] }[] = [
  {
    name: 'Bought and kept',
    fields: [
      { key: 'price_per_kg', label: 'Price', unit: '/kg' },
      { key: 'pack_g', label: 'Pack', unit: 'g' },
      { key: 'usable_pct', label: 'Left after trimming', unit: '%' },
      { key: 'drained_pct', label: 'Left once drained', unit: '%' },
      { key: 'density', label: 'Density', unit: 'g/mL' },
      { key: 'cup_density', label: 'In spoon and cup', unit: 'g/mL' },
      { key: 'piece_g', label: 'One piece', unit: 'g' },
      { key: 'leak_pct', label: 'Juice it gives', unit: '%' },
      { key: 'falls_pct', label: 'Falls apart', unit: '%' },
      { key: 'keeps_days', label: 'Once made, keeps', unit: 'days' },
    ],
  },
  {
    name: 'In 100 g',
    fields: [
      { key: 'water', label: 'Water', unit: 'g' },
      { key: 'fat', label: 'Fat', unit: 'g' },
      { key: 'salt', label: 'Salt', unit: 'g' },
      { key: 'flour', label: 'Flour, starch', unit: 'g' },
      { key: 'power', label: 'Thickens, × wheat', unit: '' },
      { key: 'thickening_protein', label: 'Casein, gelatin', unit: 'g' },
      { key: 'yolk_protein', label: 'Yolk protein', unit: 'g' },
      { key: 'solids', label: 'Dissolved: sugars, ash', unit: 'g' },
      { key: 'sugar', label: 'Of it sugar', unit: 'g' },
      { key: 'acid', label: 'Acid, as citric', unit: 'g' },
      { key: 'alcohol', label: 'Alcohol', unit: 'g' },
      { key: 'insoluble', label: 'Fibre and the rest', unit: 'g' },
    ],
  },
  {
    name: 'Body: what a purée or a gel thickens like',
    fields: [
      { key: 'body', label: 'As flour, in 100 g', unit: 'g' },
      { key: 'body_spread_pct', label: 'How far it differs', unit: '± %' },
      { key: 'boils_away_pct', label: 'A boil takes of it', unit: '%' },
    ],
  },
]
const wrong = (key: string) =>
  problems.value.find((p) => p.field === key || (key === 'insoluble' && p.field === 'composition'))
const allergens = computed<string[]>({
  get: () => (row.value.allergens ?? '').split(' ').filter(Boolean),
  set: (list) => (row.value = { ...row.value, allergens: list.join(' ') }),
})
const options = (of: Record<string, string> | undefined) =>
  Object.entries(of ?? {}).map(([value, label]) => ({ value, label }))

/** Which sauces would move; asked while typing, so that saving is no surprise. */
const foresee = useDebounceFn(async () => {
  if (!changed.value || props.editing === null) return
  try {
    const typed = { ...row.value }
    const found = await ask(api.POST('/api/work/larder-moves', { body: { rows: [typed] } }))
    problems.value = []
    trouble.value = ''
    moved.value = found
  } catch (error) {
    if (error instanceof Refused) problems.value = error.problems
    else trouble.value = (error as Error).message
  }
}, 250)
watch(row, () => changed.value && loaded.value !== undefined && void foresee(), { deep: true })

async function save(): Promise<void> {
  try {
    await ask(api.PUT('/api/larder/ingredients', { body: { row: row.value, revision: loaded.value?.revision ?? 0 } }))
    const before = loaded.value
    await session.reload()
    const said = message.success(
      () =>
        h('span', [
          `${row.value.name} is kept. `,
          before ? h(NButton, { size: 'small', onClick: () => void undo(before, said) }, () => 'Undo') : null,
        ]),
      { duration: 10_000, closable: true },
    )
    emit('close')
  } catch (error) {
    if (error instanceof Refused) problems.value = error.problems
    else if (error instanceof Taken) {
      const theirs = error.body as Schemas['RowTaken']
      trouble.value = `${theirs.message} Theirs is shown beside yours; save again to put yours in its place.`
      loaded.value = { row: theirs.row, shipped: loaded.value?.shipped ?? null, revision: theirs.revision }
    } else trouble.value = (error as Error).message
  }
}
async function undo(before: Schemas['RowOut'], said: { destroy: () => void }): Promise<void> {
  said.destroy()
  const key = before.row.key!
  try {
    if (before.revision === 0) await ask(api.DELETE('/api/larder/ingredients/{key}', { params: { path: { key } } }))
    else {
      const there = await ask(api.GET('/api/larder/ingredients/{key}', { params: { path: { key } } }))
      await ask(api.PUT('/api/larder/ingredients', { body: { row: before.row, revision: there.revision } }))
    }
    await session.reload()
  } catch (error) {
    message.error((error as Error).message)
  }
}
async function shippedAgain(): Promise<void> {
  const key = loaded.value!.row.key!
  try {
    await ask(api.DELETE('/api/larder/ingredients/{key}', { params: { path: { key } } }))
    await session.reload()
    message.info(
      loaded.value!.shipped
        ? `${loaded.value!.row.name} is as it came.`
        : `${loaded.value!.row.name} is no longer offered.`,
    )
    emit('close')
  } catch (error) {
    trouble.value = (error as Error).message
  }
}
const differs = (key: string) => loaded.value && (loaded.value.row[key] ?? '') !== (row.value[key] ?? '')
</script>

<template>
  <NModal
    :show="editing !== null"
    preset="card"
    :title="editing === '' ? 'A new ingredient' : (loaded?.row.name ?? '…')"
    style="width: min(980px, 98vw)"
    @update:show="(show: boolean) => show || emit('close')"
  >
    <form @submit.prevent="save">
      <div class="top">
        <label
          ><span class="label">Name</span><input v-model="row.name" class="box" aria-label="Name" /><span
            v-if="wrong('name')"
            class="problem"
            >{{ wrong('name')!.message }}. {{ wrong('name')!.remedy }}.</span
          ></label
        >
        <label v-if="editing === ''"
          ><span class="label">Key, for sheets</span
          ><input v-model="row.key" class="box" aria-label="Key" placeholder="cheese-from-the-ridge" /><span
            v-if="wrong('key')"
            class="problem"
            >{{ wrong('key')!.message }}. {{ wrong('key')!.remedy }}.</span
          ></label
        >
        <label
          ><span class="label">What it is</span
          ><NSelect v-model:value="row.role" :options="options(session.catalogue?.roles)" aria-label="What it is"
        /></label>
        <label
          ><span class="label">Where the figures come from</span
          ><NSelect
            v-model:value="row.origin"
            :options="options(session.catalogue?.origins)"
            aria-label="Where the figures come from"
        /></label>
        <label class="short"
          ><span class="label">Spread, ± %</span
          ><input v-model="row.spread_pct" class="box" inputmode="decimal" aria-label="Spread"
        /></label>
      </div>
      <fieldset v-for="group in groups" :key="group.name">
        <legend>{{ group.name }}</legend>
        <label v-for="f in group.fields" :key="f.key" :class="{ differs: differs(f.key) }">
          <span class="label">{{ f.label }}</span>
          <span class="entry"
            ><input
              v-model="row[f.key]"
              class="box"
              inputmode="decimal"
              :aria-label="f.label"
              :aria-invalid="Boolean(wrong(f.key))"
            />{{ f.unit }}</span
          >
          <span v-if="differs(f.key)" class="quiet was">was {{ loaded!.row[f.key] || 'none' }}</span>
          <span v-if="wrong(f.key)" class="problem">{{ wrong(f.key)!.message }}. {{ wrong(f.key)!.remedy }}.</span>
        </label>
        <label v-if="group.fields.some((f) => f.key === 'body')" class="wide">
          <span class="label">Where that comes from</span>
          <NSelect
            :value="row.body_origin ?? ''"
            :options="options(session.catalogue?.body_origins)"
            aria-label="Where the body comes from"
            @update:value="(v: string) => (row.body_origin = v)"
          />
        </label>
      </fieldset>
      <label>
        <span class="label">Allergens</span>
        <NSelect
          v-model:value="allergens"
          multiple
          :options="(session.catalogue?.allergens ?? []).map((a) => ({ value: a, label: a }))"
          aria-label="Allergens"
        />
      </label>
      <p v-if="trouble" class="problem" role="alert">{{ trouble }}</p>
      <section v-if="moved && changed" class="moved" aria-live="polite">
        <p v-if="!moved.length"><b>No sauce of yours moves.</b></p>
        <template v-else>
          <p>
            <b>{{ moved.length }} {{ moved.length === 1 ? 'sauce moves' : 'sauces move' }}</b> with it; saved versions
            keep the figures they were saved with.
          </p>
          <ul>
            <li v-for="one in moved" :key="one.sauce_id">
              <b>{{ one.name }}</b>: {{ one.changes.join(' · ') }}
            </li>
          </ul>
        </template>
      </section>
      <div class="buttons">
        <NButton v-if="loaded && loaded.revision > 0" @click="shippedAgain">{{
          loaded.shipped ? 'As it came' : 'No longer offer it'
        }}</NButton>
        <span class="rest" />
        <NButton @click="emit('close')">Leave it</NButton>
        <NButton type="primary" attr-type="submit" :disabled="!changed">Keep it</NButton>
      </div>
    </form>
  </NModal>
</template>

<style scoped>
form {
  display: flex;
  flex-direction: column;
  gap: 10px;
}
.top {
  display: flex;
  flex-wrap: wrap;
  gap: 10px;
}
.top label {
  flex: 1 1 180px;
}
.top .short {
  flex: 0 1 100px;
}
fieldset {
  align-items: end;
  display: grid;
  grid-template-columns: repeat(auto-fill, minmax(136px, 1fr));
  gap: 4px 14px;
  margin: 0;
  padding: 6px 12px 10px;
  border: 1px solid var(--fog2);
  border-radius: 10px;
}
legend {
  padding: 0 6px;
  font: 600 18px var(--display);
}
.wide {
  grid-column: span 3;
}
.entry {
  white-space: nowrap;
  display: flex;
  align-items: baseline;
  gap: 6px;
}
.entry input {
  min-width: 0;
  text-align: right;
}
.differs input {
  border-color: var(--russet);
  background: var(--russet-wash);
}
.was {
  font-size: 14px;
}
.moved {
  padding: 8px 14px;
  border-left: 5px solid var(--leaf);
  background: var(--leaf-wash);
}
.moved ul {
  max-height: 150px;
  margin: 4px 0 0;
  padding-left: 18px;
  overflow: auto;
}
.buttons {
  position: sticky;
  bottom: 0;
  z-index: 1;
  display: flex;
  gap: 8px;
  padding: 8px 0;
  background: var(--fog0);
}
.rest {
  flex: 1;
}
</style>
