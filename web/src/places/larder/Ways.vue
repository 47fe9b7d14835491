<script setup lang="ts">
/** How what is not a sauce is cooked: a kitchen's usual ways, each to be changed, and ways of its own. */
import { NButton, NSelect } from 'naive-ui'
import { computed, reactive, ref } from 'vue'
import { api, ask, type Schemas } from '@/api/client'
import ChoiceField from '@/parts/ChoiceField.vue'
import { found, ingredientOption } from '@/parts/options'
import ProblemLine from '@/parts/ProblemLine.vue'
import TextField from '@/parts/TextField.vue'
import { useForm } from '@/shell/form'
import { useOffList } from '@/shell/offList'
import { useSession } from '@/shell/session'

type Way = Schemas['Way']
const props = defineProps<{ ways: Way[]; own: Record<string, boolean> }>()
const emit = defineEmits<{ changed: [] }>()
const session = useSession()
const offList = useOffList()
const form = useForm()
const fresh = useForm()
const open = ref<string | null>(null)
const made = reactive({ name: '', does: [] as string[] })

const figures: { key: keyof Way; label: string; unit: string }[] = [
  { key: 'minutes', label: 'cooks', unit: 'min' },
  { key: 'heat_up', label: 'heats up', unit: 'min' },
  { key: 'put_in', label: 'putting in', unit: 'min' },
  { key: 'take_out', label: 'taking out', unit: 'min' },
  { key: 'load_g', label: 'at a time', unit: 'g' },
  { key: 'between', label: 'between rounds', unit: 'min' },
  { key: 'sink', label: 'at the sink', unit: 'min' },
  { key: 'rest', label: 'rests', unit: 'min' },
  { key: 'keeps', label: 'may wait', unit: 'min' },
  { key: 'suffers', label: 'waiting costs it', unit: '0 to 9' },
]
const where: Record<Way['on'], string> = {
  ring: 'on a ring',
  oven: 'in the oven',
  grill: 'under the grill',
  fryer: 'in the fryer',
  steamer: 'in the steamer',
  griddle: 'on the griddle',
  microwave: 'in the microwave',
  table: 'at the table',
}
const ons = Object.entries(where).map(([value, label]) => ({ value, label }))
const vessels = [
  { value: 'pot', label: 'a pot of water' },
  { value: 'pan', label: 'a wide pan' },
  { value: 'none', label: 'nothing of its own' },
]
const handed = [
  { value: 'all', label: 'all the time' },
  { value: 'now-and-then', label: 'now and then' },
  { value: 'none', label: 'none' },
]
const options = computed(() => [...session.ingredients.values()].map(ingredientOption))
const nameOf = (key: string) => session.ingredients.get(key)?.name ?? key
const named = (keys: string[]) => keys.map(nameOf).join(', ')
const shown = computed(() => props.ways.filter((way) => way.key !== 'as-it-is'))
const isOwn = (way: Way) => way.key in props.own
/** A way nobody ships has no usual figures to go back to. */
const isNew = (way: Way) => props.own[way.key] === false

const put = (row: Record<string, unknown>) => ask(api.PUT('/api/larder/ways', { body: { row } }))
const set = (way: Way, key: keyof Way, value: unknown) =>
  form.run(async () => {
    await put({ ...way, [key]: value })
    emit('changed')
  })
const add = () =>
  fresh.run(async () => {
    const { key } = await ask(api.POST('/api/larder/ways', { body: { ...made } }))
    Object.assign(made, { name: '', does: [] })
    open.value = key
    emit('changed')
  })
const back = (way: Way) =>
  form.run(async () => {
    await ask(api.DELETE('/api/larder/ways/{key}', { params: { path: { key: way.key } } }))
    emit('changed')
    offList(way.name, () => put({ ...way }).then(() => emit('changed')))
  })
</script>

<template>
  <section class="ways">
    <h2>How things are cooked</h2>
    <p class="quiet">A kitchen's usual figures; yours count instead where you change them.</p>
    <ul>
      <li v-for="way in shown" :key="way.key" class="sheet">
        <button class="plain" :aria-expanded="open === way.key" @click="open = open === way.key ? null : way.key">
          <b>{{ way.name }}</b><template v-if="way.does.length"
            >: {{ named(way.does.slice(0, 3)) }}{{ way.does.length > 3 ? ' …' : '' }}</template
          >
          <span v-if="isOwn(way)" class="own">yours</span> <br /><span class="quiet"
            >{{ way.minutes }} min {{ where[way.on] }}; may wait {{ way.keeps }} min</span
          >
        </button>
        <div v-if="open === way.key" class="two">
          <label class="wide"
            ><span class="label">for what</span
            ><NSelect
              multiple
              filterable
              :value="way.does"
              :options="options"
              :filter="found"
              placeholder="where a dish asks for it"
              :aria-label="`${way.name}: for what`"
              @update:value="(keys: string[]) => set(way, 'does', keys)"
          /></label>
          <ChoiceField
            :value="way.on"
            label="cooked"
            :name="`${way.name}: cooked`"
            :options="ons"
            @change="(on) => set(way, 'on', on)"
          />
          <ChoiceField
            v-if="way.on === 'ring'"
            :value="way.vessel"
            label="in"
            :name="`${way.name}: in`"
            :options="vessels"
            @change="(vessel) => set(way, 'vessel', vessel)"
          />
          <ChoiceField
            :value="way.hands"
            label="hands while it cooks"
            :name="`${way.name}: hands while it cooks`"
            :options="handed"
            @change="(hands) => set(way, 'hands', hands)"
          />
          <label v-if="way.on === 'ring' && way.vessel === 'pot'"
            ><span class="label">water for a kilo, L</span
            ><input
              class="box"
              inputmode="decimal"
              :value="way.water_l_per_kg"
              :aria-label="`${way.name}: water for a kilo, L`"
              @change="set(way, 'water_l_per_kg', ($event.target as HTMLInputElement).value)"
          /></label>
          <label v-for="one in figures" :key="one.key"
            ><span class="label">{{ one.label }}, {{ one.unit }}</span
            ><input
              class="box"
              inputmode="decimal"
              :value="way[one.key]"
              :aria-label="`${way.name}: ${one.label}, ${one.unit}`"
              @change="set(way, one.key, ($event.target as HTMLInputElement).value)"
          /></label>
          <label class="wide"
            ><span class="label">what to look for</span
            ><input
              class="box"
              maxlength="200"
              :value="way.cue"
              :aria-label="`${way.name}: what to look for`"
              @change="set(way, 'cue', ($event.target as HTMLInputElement).value)"
          /></label>
          <p v-if="form.trouble.value" class="problem" role="alert">{{ form.trouble.value }}</p>
          <p v-for="problem in form.problems.value" :key="problem.field" class="problem wide" role="alert">
            {{ problem.field }}: {{ problem.message }}
          </p>
          <NButton v-if="isOwn(way)" @click="back(way)">{{
            isNew(way) ? 'Take it away' : 'The usual figures'
          }}</NButton>
        </div>
      </li>
    </ul>
    <form class="sheet" @submit.prevent="add">
      <h3>Add a way of your own</h3>
      <TextField
        :value="made.name"
        label="What it is called"
        name="What the way is called"
        placeholder="Poach in oil"
        :most="60"
        :problem="fresh.problemAt('name')"
        @change="(text) => (made.name = text)"
      />
      <label
        ><span class="label">for what</span
        ><NSelect
          v-model:value="made.does"
          multiple
          filterable
          :options="options"
          :filter="found"
          placeholder="where a dish asks for it"
          aria-label="For what the way is"
      /></label>
      <ProblemLine :problem="fresh.problemAt('does') ?? fresh.problemAt('key')" />
      <p v-if="fresh.trouble.value" class="problem" role="alert">{{ fresh.trouble.value }}</p>
      <NButton type="primary" attr-type="submit" :disabled="!made.name.trim()">Add it</NButton>
    </form>
  </section>
</template>

<style scoped>
ul {
  display: flex;
  flex-direction: column;
  gap: 6px;
  margin: 8px 0;
  padding: 0;
  list-style: none;
}
li {
  padding: 8px 12px;
}
li > button {
  width: 100%;
  min-height: 44px;
  text-align: left;
}
form {
  display: flex;
  flex-direction: column;
  gap: 8px;
  padding: 12px 14px;
}
.two {
  display: grid;
  grid-template-columns: repeat(2, minmax(0, 1fr));
  gap: 8px;
}
.wide {
  grid-column: 1 / -1;
}
</style>
