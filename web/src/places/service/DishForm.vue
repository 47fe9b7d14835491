<script setup lang="ts">
/** A dish: its sauces and how they are used, its solids, its vessel, what goes over it, its rounds. */
import { NButton, NSelect, useMessage } from 'naive-ui'
import { computed, onMounted, ref } from 'vue'
import { api, ask, type Schemas } from '@/api/client'
import { ingredientOption } from '@/parts/options'
import ProblemLine from '@/parts/ProblemLine.vue'
import RowFields from '@/parts/RowFields.vue'
import TextField from '@/parts/TextField.vue'
import { onEditKeys } from '@/shell/keys'
import { useSession } from '@/shell/session'
import { plateFields, roundFields, sauceFields, solidFields, toppingFields, useDish, vesselFields } from './dish'
import type { Loose } from './service'

/** The number of the dish to edit; null: a new one. */
const props = defineProps<{ id: number | null }>()
const emit = defineEmits<{ close: []; saved: [id: number] }>()
const session = useSession()
const message = useMessage()
const dish = useDish()
const { typed, problems, trouble, conflict, restored } = dish
const sauces = ref<Schemas['SauceLine'][]>([])
const lost = ref('')
const tried = ref(false)
const blank = { format: 'kestrel-fog/dish', version: 1, name: '', sauces: [], solids: [] }

onMounted(async () => {
  try {
    sauces.value = await ask(api.GET('/api/sauces', { params: { query: { q: '' } } }))
    if (props.id === null) await dish.start(blank, false)
    else await dish.open(props.id)
  } catch (error) {
    lost.value = (error as Error).message
  }
})
const named = (rows: { key: string; name: string }[]) => rows.map((row) => ({ value: row.key, label: row.name }))
const sauceOptions = computed(() => sauces.value.map((s) => ({ value: String(s.id), label: s.name })))
const useOptions = computed(() => named(session.uses))
const gradeOptions = computed(() => named(session.grades))
const solidsFirst = ['solid', 'vegetable', 'aromatic', 'meat', 'fish', 'seafood']
const ingredientOptions = computed(() =>
  [...session.ingredients.values()]
    .sort((a, b) => Number(solidsFirst.includes(b.role)) - Number(solidsFirst.includes(a.role)))
    .map(ingredientOption),
)
const rowsOf = (list: string) => (typed.value[list] ?? []) as Loose[]
const useOf = (row: Loose) => session.uses.find((u) => u.key === row.use)
const set = (list: string, at: number, key: string, value: string) =>
  dish.edit((doc) => (doc[list][at][key] = value), `${list}.${at}.${key}`)
const put = (list: string, row: Loose) => dish.edit((doc) => (doc[list] ??= []).push(row))
const takeOut = (list: string, at: number) => dish.edit((doc) => doc[list].splice(at, 1))
function takeVessel(name: string): void {
  const pan = session.pans.find((p) => p.name === name)
  if (!pan) return
  const { shape, diameter_cm, depth_cm, width_cm } = pan
  void dish.edit((doc) => (doc.vessel = { name, shape, diameter_cm, depth_cm, width_cm, portions: 8 }))
}

/** Something was entered, beyond what a new dish starts with. */
const begun = computed(() => JSON.stringify(typed.value) !== JSON.stringify(blank))
const nameProblem = computed(() => (tried.value || typed.value.name ? dish.problemAt('name') : null))
const shown = ['name', 'sauces', 'solids', 'vessel', 'toppings', 'rounds']
const other = computed(() => problems.value.filter((p) => !shown.some((field) => p.field.startsWith(field))))

async function save(over = false): Promise<void> {
  tried.value = true
  const kept = await dish.save(over)
  if (!kept) return
  message.success(`“${(kept.document as Loose).name}” is kept.`)
  emit('saved', kept.id)
}
async function leave(): Promise<void> {
  await dish.discard()
  emit('close')
}
onEditKeys({ save: () => void save(), undo: dish.undo, redo: dish.redo })
</script>

<template>
  <p v-if="lost" class="problem" role="alert">{{ lost }}</p>
  <form v-else @submit.prevent="save()">
    <p v-if="restored && begun" class="quiet">What was typed here and not kept was brought back.</p>
    <TextField
      class="name"
      :value="typed.name"
      label="Name"
      name="Dish name"
      @change="(text) => dish.edit((doc) => (doc.name = text), 'name')"
    />
    <ProblemLine :problem="nameProblem" subject="The name" />

    <fieldset>
      <legend>Sauces</legend>
      <RowFields
        v-for="(row, i) in rowsOf('sauces')"
        :key="i"
        :number="i + 1"
        :fields="sauceFields(useOf(row), sauceOptions, useOptions, gradeOptions)"
        :row="row"
        remove="Take out sauce"
        @change="(key, value) => set('sauces', i, key, value)"
        @remove="takeOut('sauces', i)"
      />
      <ProblemLine :problem="dish.problemAt('sauces')" :subject="dish.problemAt('sauces')?.field" />
      <NButton @click="put('sauces', { sauce: sauceOptions[0]?.value ?? '', use: 'nap' })">A sauce</NButton>
    </fieldset>

    <fieldset>
      <legend>Solids, for each portion</legend>
      <RowFields
        v-for="(row, i) in rowsOf('solids')"
        :key="i"
        :number="i + 1"
        :fields="solidFields(ingredientOptions)"
        :row="row"
        remove="Take out solid"
        @change="(key, value) => set('solids', i, key, value)"
        @remove="takeOut('solids', i)"
      />
      <ProblemLine :problem="dish.problemAt('solids')" :subject="dish.problemAt('solids')?.field" />
      <NButton @click="put('solids', { ingredient: 'potato', grams: 100 })">A solid</NButton>
    </fieldset>

    <fieldset>
      <legend>Vessel</legend>
      <RowFields
        v-if="typed.vessel"
        :fields="vesselFields(typed.vessel.shape)"
        :row="typed.vessel"
        remove="No vessel"
        @change="(key, value) => dish.edit((doc) => (doc.vessel[key] = value), `vessel.${key}`)"
        @remove="dish.edit((doc) => (doc.vessel = null))"
      />
      <template v-else>
        <span class="quiet plate">On the plate.</span>
        <NButton
          @click="
            dish.edit(
              (doc) => (doc.vessel = { name: 'dish', shape: 'dish', diameter_cm: 14, depth_cm: 5, portions: 1 }),
            )
          "
          >In a vessel</NButton
        >
        <NSelect
          class="yours"
          :value="null"
          placeholder="one of yours…"
          :options="session.pans.map((p) => ({ value: p.name, label: p.name }))"
          aria-label="One of your vessels"
          @update:value="takeVessel"
        />
      </template>
      <ProblemLine :problem="dish.problemAt('vessel')" subject="The vessel" />
    </fieldset>

    <fieldset>
      <legend>Over the top, in rounds, at the end</legend>
      <RowFields
        v-for="(row, i) in rowsOf('toppings')"
        :key="`t${i}`"
        :number="i + 1"
        :fields="toppingFields(ingredientOptions)"
        :row="row"
        remove="Take out topping"
        @change="(key, value) => set('toppings', i, key, value)"
        @remove="takeOut('toppings', i)"
      />
      <ProblemLine :problem="dish.problemAt('toppings')" />
      <RowFields
        v-for="(row, i) in rowsOf('rounds')"
        :key="`r${i}`"
        :number="i + 1"
        :fields="roundFields"
        :row="row"
        remove="Take out round"
        @change="(key, value) => set('rounds', i, key, value)"
        @remove="takeOut('rounds', i)"
      />
      <ProblemLine :problem="dish.problemAt('rounds')" />
      <RowFields
        :fields="plateFields"
        :row="typed"
        @change="(key, value) => dish.edit((doc) => (doc[key] = value), key)"
      />
      <NButton @click="put('toppings', { ingredient: 'breadcrumbs', g_per_cm2: 0.06 })">Something over the top</NButton>
      <NButton @click="put('rounds', { what: 'pieces', each: 1, piece_cm2: 50, room_cm2: 500, minutes: 4 })"
        >Something in rounds</NButton
      >
    </fieldset>
    <ProblemLine v-for="p in other" :key="p.field" :problem="p" :subject="`${p.field}:`" />
    <p v-if="trouble" class="problem" role="alert">{{ trouble }}</p>
    <div class="dialog-buttons">
      <template v-if="conflict">
        <p class="problem" role="alert">{{ conflict.message }}</p>
        <NButton @click="save(true)">Put mine in its place</NButton>
        <NButton type="primary" @click="dish.takeTheirs()">Take theirs</NButton>
      </template>
      <template v-else>
        <NButton @click="leave">Leave it</NButton>
        <NButton type="primary" attr-type="submit">Keep the dish</NButton>
      </template>
    </div>
  </form>
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
  align-items: end;
  gap: 8px;
}
fieldset .problem {
  flex: 1 1 100%;
}
.plate {
  align-self: center;
}
.yours {
  flex: 0 1 220px;
}
.name :deep(.box) {
  font: 600 22px var(--display);
}
</style>
