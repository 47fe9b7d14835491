<script setup lang="ts">
/** A dish: its sauces and how they are used, its solids, its vessel, what goes over it, its rounds. */
import { NButton, NModal, NSelect, useMessage } from 'naive-ui'
import { computed, ref, watch } from 'vue'
import { api, ask, Refused, Taken, type Problem, type Schemas } from '@/api/client'
import { useSession } from '@/shell/session'
import type { Loose } from './service'

const props = defineProps<{ dish: Schemas['DishOut'] | 'new' | null }>()
const emit = defineEmits<{ close: []; saved: [dish: Schemas['DishOut']] }>()
const session = useSession()
const message = useMessage()
const doc = ref<Loose>({})
const revision = ref(0)
const sauces = ref<Schemas['SauceLine'][]>([])
const problems = ref<Problem[]>([])
const trouble = ref('')

watch(
  () => props.dish,
  async (dish) => {
    problems.value = []
    trouble.value = ''
    if (dish === null) return
    revision.value = dish === 'new' ? 0 : dish.revision
    doc.value = dish === 'new' ? { name: '', sauces: [], solids: [] } : JSON.parse(JSON.stringify(dish.document))
    sauces.value = await ask(api.GET('/api/sauces', { params: { query: { q: '' } } })).catch(() => [])
  },
)
const sauceOptions = computed(() => sauces.value.map((s) => ({ value: String(s.id), label: s.name })))
const useOptions = computed(() => session.uses.map((u) => ({ value: u.key, label: u.name })))
const gradeOptions = computed(() => [
  { value: '', label: 'as the sauce is' },
  ...session.grades.map((g) => ({ value: g.key, label: g.name })),
])
const solidsFirst = ['solid', 'vegetable', 'aromatic', 'meat', 'fish', 'seafood']
const ingredientOptions = computed(() =>
  [...session.ingredients.values()]
    .sort((a, b) => Number(solidsFirst.includes(b.role)) - Number(solidsFirst.includes(a.role)))
    .map((row) => ({ value: row.key, label: row.name })),
)
const shapes = ['tray', 'dish', 'shell', 'bowl', 'straight', 'sloped'].map((value) => ({
  value,
  label: value === 'dish' ? 'small dish' : value,
}))
const finishes = [
  { value: 'none', label: 'nothing more' },
  { value: 'grill', label: 'under the grill' },
  { value: 'oven', label: 'in the oven' },
  { value: 'torch', label: 'torch, for colour' },
  { value: 'lid', label: 'under a lid' },
]
const use = (key: string) => session.uses.find((u) => u.key === key)
const eachLabel = (key: string) =>
  (
    ({
      piece: 'pieces a portion',
      'solids-g': 'g a portion',
      'pasta-100g': 'g dry a portion',
      'filling-100g': 'g filling a portion',
      portion: 'times a portion',
    }) as Record<string, string>
  )[use(key)?.basis ?? 'portion']
const vesselBased = (key: string) => use(key)?.basis === 'vessel-cm2'
function takeVessel(name: string): void {
  const pan = session.pans.find((p) => p.name === name)
  if (pan) {
    doc.value.vessel = {
      name: pan.name,
      shape: pan.shape,
      diameter_cm: pan.diameter_cm,
      depth_cm: pan.depth_cm,
      ...(pan.width_cm ? { width_cm: pan.width_cm } : {}),
      portions: doc.value.vessel?.portions ?? 8,
    }
  }
}
/** Empty fields are left out, so that the core's defaults count; numbers stay as typed for it to judge. */
function written(): Loose {
  return JSON.parse(JSON.stringify(doc.value), (_, value) => (value === '' || value === null ? undefined : value))
}
async function save(): Promise<void> {
  const body = { document: { ...written(), name: doc.value.name }, revision: revision.value }
  try {
    const found =
      props.dish === 'new' || props.dish === null
        ? await ask(api.POST('/api/dishes', { body }))
        : await ask(api.PUT('/api/dishes/{dish_id}', { params: { path: { dish_id: props.dish.id } }, body }))
    message.success(`“${found.name}” is kept.`)
    emit('saved', found)
  } catch (error) {
    problems.value = error instanceof Refused ? error.problems : []
    trouble.value = error instanceof Refused ? '' : (error as Error).message
    if (error instanceof Taken) {
      const theirs = error.body as Schemas['KeptTaken']
      revision.value = theirs.revision
      trouble.value = `${theirs.message} Save again to put yours in its place.`
    }
  }
}
const wrong = (field: string) =>
  problems.value.find((p) => p.field === field || p.field.startsWith(`${field}.`) || p.field.startsWith(`${field}[`))
const shownElsewhere = ['name', 'sauces', 'solids', 'vessel', 'toppings', 'rounds']
const other = computed(() => problems.value.filter((p) => !shownElsewhere.some((f) => p.field.startsWith(f))))
</script>

<template>
  <NModal
    :show="dish !== null"
    preset="card"
    :title="dish === 'new' ? 'A new dish' : 'The dish'"
    style="width: min(940px, 98vw)"
    @update:show="(show: boolean) => show || emit('close')"
  >
    <form @submit.prevent="save">
      <label><span class="label">Name</span><input v-model="doc.name" class="box wide" aria-label="Dish name" /></label>
      <p v-if="wrong('name')" class="problem">The name {{ wrong('name')!.message }}. {{ wrong('name')!.remedy }}.</p>

      <fieldset>
        <legend>Sauces</legend>
        <div v-for="(used, i) in doc.sauces as Loose[]" :key="i" class="row">
          <label class="grow"
            ><span class="label">sauce</span
            ><NSelect v-model:value="used.sauce" filterable :options="sauceOptions" :aria-label="`Sauce ${i + 1}`"
          /></label>
          <label class="grow"
            ><span class="label">used</span
            ><NSelect
              v-model:value="used.use"
              :options="useOptions"
              :virtual-scroll="false"
              :aria-label="`Use ${i + 1}`"
          /></label>
          <label v-if="vesselBased(used.use)"
            ><span class="label">layers</span
            ><input
              v-model="used.layers"
              class="box"
              inputmode="numeric"
              :aria-label="`Layers ${i + 1}`"
              placeholder="1"
          /></label>
          <label v-else
            ><span class="label">{{ eachLabel(used.use) }}</span
            ><input
              v-model="used.each"
              class="box"
              inputmode="decimal"
              :aria-label="`Each ${i + 1}`"
              placeholder="usual"
          /></label>
          <label
            ><span class="label">mL for each</span
            ><input
              v-model="used.per_ml"
              class="box"
              inputmode="decimal"
              :aria-label="`mL ${i + 1}`"
              :placeholder="String(use(used.use)?.per_ml ?? '')"
          /></label>
          <label
            ><span class="label">kept back, %</span
            ><input
              v-model="used.kept_back_pct"
              class="box"
              inputmode="decimal"
              :aria-label="`Kept back ${i + 1}`"
              placeholder="0"
          /></label>
          <label class="grow"
            ><span class="label">how thick there</span
            ><NSelect
              :value="used.grade ?? ''"
              :options="gradeOptions"
              :aria-label="`Grade ${i + 1}`"
              @update:value="(v: string) => (used.grade = v || null)"
          /></label>
          <NButton quaternary :aria-label="`Take sauce ${i + 1} out`" @click="doc.sauces.splice(i, 1)">×</NButton>
        </div>
        <p v-if="wrong('sauces')" class="problem">
          {{ wrong('sauces')!.field }} {{ wrong('sauces')!.message }}. {{ wrong('sauces')!.remedy }}.
        </p>
        <NButton @click="(doc.sauces ??= []).push({ sauce: sauceOptions[0]?.value ?? '', use: 'nap' })"
          >A sauce</NButton
        >
      </fieldset>

      <fieldset>
        <legend>Solids, for each portion</legend>
        <div v-for="(solid, i) in doc.solids as Loose[]" :key="i" class="row">
          <label class="grow"
            ><span class="label">what</span
            ><NSelect
              v-model:value="solid.ingredient"
              filterable
              :options="ingredientOptions"
              :aria-label="`Solid ${i + 1}`"
          /></label>
          <label
            ><span class="label">g</span
            ><input v-model="solid.grams" class="box" inputmode="decimal" :aria-label="`Grams ${i + 1}`"
          /></label>
          <label class="grow"
            ><span class="label">weighed</span
            ><NSelect
              :value="solid.state ?? 'drained'"
              :options="[
                { value: 'drained', label: 'cooked and drained' },
                { value: 'dry', label: 'dry: it drinks' },
              ]"
              :aria-label="`State ${i + 1}`"
              @update:value="(v: string) => (solid.state = v)"
          /></label>
          <NButton quaternary :aria-label="`Take solid ${i + 1} out`" @click="doc.solids.splice(i, 1)">×</NButton>
        </div>
        <p v-if="wrong('solids')" class="problem">
          {{ wrong('solids')!.field }} {{ wrong('solids')!.message }}. {{ wrong('solids')!.remedy }}.
        </p>
        <NButton @click="(doc.solids ??= []).push({ ingredient: 'potato', grams: 100 })">A solid</NButton>
      </fieldset>

      <fieldset>
        <legend>Vessel</legend>
        <div v-if="doc.vessel" class="row">
          <label class="grow"
            ><span class="label">name</span><input v-model="doc.vessel.name" class="box" aria-label="Vessel name"
          /></label>
          <label class="grow"
            ><span class="label">shape</span
            ><NSelect v-model:value="doc.vessel.shape" :options="shapes" aria-label="Vessel shape"
          /></label>
          <label
            ><span class="label">{{ doc.vessel.shape === 'tray' ? 'long, cm' : 'across, cm' }}</span
            ><input v-model="doc.vessel.diameter_cm" class="box" inputmode="decimal" aria-label="Vessel across"
          /></label>
          <label v-if="doc.vessel.shape === 'tray'"
            ><span class="label">wide, cm</span
            ><input v-model="doc.vessel.width_cm" class="box" inputmode="decimal" aria-label="Vessel wide"
          /></label>
          <label
            ><span class="label">deep, cm</span
            ><input v-model="doc.vessel.depth_cm" class="box" inputmode="decimal" aria-label="Vessel deep"
          /></label>
          <label
            ><span class="label">portions in one</span
            ><input v-model="doc.vessel.portions" class="box" inputmode="decimal" aria-label="Vessel portions"
          /></label>
          <NButton quaternary aria-label="No vessel" @click="doc.vessel = null">×</NButton>
        </div>
        <div v-else class="row">
          <span class="quiet">On the plate.</span>
          <NButton @click="doc.vessel = { name: 'dish', shape: 'dish', diameter_cm: 14, depth_cm: 5, portions: 1 }"
            >In a vessel</NButton
          >
          <NSelect
            class="grow"
            :value="null"
            placeholder="one of yours…"
            :options="session.pans.map((p) => ({ value: p.name, label: p.name }))"
            aria-label="One of your vessels"
            @update:value="takeVessel"
          />
        </div>
        <p v-if="wrong('vessel')" class="problem">
          The vessel {{ wrong('vessel')!.message }}. {{ wrong('vessel')!.remedy }}.
        </p>
      </fieldset>

      <fieldset>
        <legend>Over the top, in rounds, at the end</legend>
        <div v-for="(top, i) in (doc.toppings ?? []) as Loose[]" :key="`t${i}`" class="row">
          <label class="grow"
            ><span class="label">over the top</span
            ><NSelect
              v-model:value="top.ingredient"
              filterable
              :options="ingredientOptions"
              :aria-label="`Topping ${i + 1}`"
          /></label>
          <label
            ><span class="label">g/cm²</span
            ><input v-model="top.g_per_cm2" class="box" inputmode="decimal" :aria-label="`Topping by area ${i + 1}`"
          /></label>
          <label
            ><span class="label">or g a portion</span
            ><input v-model="top.grams" class="box" inputmode="decimal" :aria-label="`Topping grams ${i + 1}`"
          /></label>
          <NButton quaternary :aria-label="`Take topping ${i + 1} out`" @click="doc.toppings.splice(i, 1)">×</NButton>
        </div>
        <p v-if="wrong('toppings')" class="problem">
          {{ wrong('toppings')!.message }}. {{ wrong('toppings')!.remedy }}.
        </p>
        <div v-for="(round, i) in (doc.rounds ?? []) as Loose[]" :key="`r${i}`" class="row">
          <label class="grow"
            ><span class="label">in rounds</span><input v-model="round.what" class="box" :aria-label="`Round ${i + 1}`"
          /></label>
          <label
            ><span class="label">a portion</span
            ><input v-model="round.each" class="box" inputmode="decimal" :aria-label="`Pieces ${i + 1}`"
          /></label>
          <label
            ><span class="label">cm² a piece</span
            ><input v-model="round.piece_cm2" class="box" inputmode="decimal" :aria-label="`Piece ${i + 1}`"
          /></label>
          <label
            ><span class="label">cm² of pan</span
            ><input v-model="round.room_cm2" class="box" inputmode="decimal" :aria-label="`Room ${i + 1}`"
          /></label>
          <label
            ><span class="label">min a round</span
            ><input v-model="round.minutes" class="box" inputmode="decimal" :aria-label="`Minutes ${i + 1}`"
          /></label>
          <NButton quaternary :aria-label="`Take round ${i + 1} out`" @click="doc.rounds.splice(i, 1)">×</NButton>
        </div>
        <p v-if="wrong('rounds')" class="problem">{{ wrong('rounds')!.message }}. {{ wrong('rounds')!.remedy }}.</p>
        <div class="row">
          <label class="grow"
            ><span class="label">finish</span
            ><NSelect
              :value="doc.finish ?? 'none'"
              :options="finishes"
              aria-label="Finish"
              @update:value="(v: string) => (doc.finish = v)"
          /></label>
          <label
            ><span class="label">min</span
            ><input v-model="doc.finish_minutes" class="box" inputmode="decimal" aria-label="Finish minutes"
          /></label>
          <label class="grow"
            ><span class="label">filled</span
            ><NSelect
              :value="doc.filled ?? 'hot'"
              :options="[
                { value: 'hot', label: 'hot from the pot' },
                { value: 'cold', label: 'cold from the fridge' },
              ]"
              aria-label="Filled"
              @update:value="(v: string) => (doc.filled = v)"
          /></label>
          <label
            ><span class="label">plate, °C</span
            ><input v-model="doc.plate_c" class="box" inputmode="decimal" aria-label="Plate" placeholder="60"
          /></label>
          <label
            ><span class="label">it weighs, g</span
            ><input v-model="doc.plate_g" class="box" inputmode="decimal" aria-label="Plate weighs" placeholder="400"
          /></label>
          <label
            ><span class="label">food, °C</span
            ><input v-model="doc.food_c" class="box" inputmode="decimal" aria-label="Food at" placeholder="65"
          /></label>
          <label
            ><span class="label">margin, %</span
            ><input v-model="doc.margin_pct" class="box" inputmode="decimal" aria-label="Margin" placeholder="5"
          /></label>
        </div>
        <NButton @click="(doc.toppings ??= []).push({ ingredient: 'breadcrumbs', g_per_cm2: 0.06 })"
          >Something over the top</NButton
        >
        <NButton
          @click="(doc.rounds ??= []).push({ what: 'pieces', each: 1, piece_cm2: 50, room_cm2: 500, minutes: 4 })"
          >Something in rounds</NButton
        >
      </fieldset>
      <p v-for="p in other" :key="p.field" class="problem">{{ p.field }}: {{ p.message }}. {{ p.remedy }}.</p>
      <p v-if="trouble" class="problem" role="alert">{{ trouble }}</p>
      <div class="buttons">
        <NButton @click="emit('close')">Leave it</NButton>
        <NButton type="primary" attr-type="submit">Keep the dish</NButton>
      </div>
    </form>
  </NModal>
</template>

<style scoped>
form {
  display: flex;
  flex-direction: column;
  gap: 8px;
}
fieldset {
  display: flex;
  flex-wrap: wrap;
  gap: 8px;
  margin: 0;
  padding: 4px 12px 12px;
  border: 1px solid var(--fog2);
  border-radius: 10px;
}
legend {
  padding: 0 6px;
  font: 600 18px var(--display);
}
.row {
  display: flex;
  flex: 1 1 100%;
  flex-wrap: wrap;
  gap: 8px;
  align-items: end;
}
.row label {
  flex: 0 1 92px;
}
.row .grow {
  flex: 1 1 136px;
}
.label {
  font-size: 13px;
}
.box.wide {
  font: 600 22px var(--display);
}
.problem {
  flex: 1 1 100%;
}
.buttons {
  position: sticky;
  bottom: 0;
  z-index: 1;
  display: flex;
  justify-content: flex-end;
  gap: 8px;
  padding: 8px 0;
  background: var(--fog0);
}
</style>
