<script setup lang="ts">
/** Who cooks here, what there is beside pans and rings, and how what is not a sauce is cooked: what the
 * run-up goes by. */
import { NButton } from 'naive-ui'
import { computed, reactive, ref } from 'vue'
import { api, ask, type Schemas } from '@/api/client'
import ChoiceField from '@/parts/ChoiceField.vue'
import ProblemLine from '@/parts/ProblemLine.vue'
import Ways from './Ways.vue'
import { useForm } from '@/shell/form'
import { useList } from '@/shell/list'
import { useOffList } from '@/shell/offList'
import { millilitres } from '@/parts/format'

const offList = useOffList()
const means = ref<Schemas['MeansOut'] | null>(null)
const { trouble, load, tell } = useList(async () => {
  means.value = await ask(api.GET('/api/larder/means'))
})

const skills: Record<string, string> = {
  prepare: 'cutting, grating',
  stove: 'the stove',
  oven: 'oven and grill',
  plate: 'filling, plating',
  wash: 'washing up',
}
const cook = reactive({ name: '', can: [] as string[] })
const cookForm = useForm()
const addCook = () =>
  cookForm.run(async () => {
    await ask(api.POST('/api/larder/cooks', { body: { ...cook } }))
    Object.assign(cook, { name: '', can: [] })
    await load()
  })
const removeCook = (one: Schemas['CookOut']) =>
  tell(async () => {
    await ask(api.DELETE('/api/larder/cooks/{cook_id}', { params: { path: { cook_id: one.id } } }))
    offList(one.name, () => tell(() => ask(api.POST('/api/larder/cooks', { body: one }))))
  })

const gear = reactive({ kind: 'oven', name: '', count: '1', shelves: '', area_cm2: '', litres: '', can: '' })
const gearForm = useForm()
const OTHER = 'another kind'
const kinds = computed(() => [
  ...(means.value?.kinds ?? []).map((kind) => ({ value: kind.key, label: kind.name })),
  { value: OTHER, label: OTHER },
])
const canOf = (one: Schemas['GearOut']) =>
  one.can ?? means.value?.kinds.find((kind) => kind.key === one.kind)?.can ?? []
const addGear = () =>
  gearForm.run(async () => {
    const can = gear.can
      .split(/[,;]+/)
      .map((word) => word.trim())
      .filter(Boolean)
    const other = gear.kind === OTHER
    await ask(
      api.POST('/api/larder/gear', {
        body: {
          ...gear,
          kind: other ? gear.name.trim().toLowerCase().slice(0, 30) : gear.kind,
          can: other || can.length ? can : null,
        },
      }),
    )
    Object.assign(gear, { name: '', count: '1', shelves: '', area_cm2: '', litres: '', can: '' })
    await load()
  })
const removeGear = (one: Schemas['GearOut']) =>
  tell(async () => {
    await ask(api.DELETE('/api/larder/gear/{gear_id}', { params: { path: { gear_id: one.id } } }))
    offList(one.name, () => tell(() => ask(api.POST('/api/larder/gear', { body: one }))))
  })
</script>

<template>
  <p v-if="trouble" class="problem" role="alert">
    {{ trouble }} <NButton size="small" @click="load">Try again</NButton>
  </p>
  <div v-else-if="means" class="brigade">
    <section>
      <h2>Who cooks here</h2>
      <p v-if="!means.cooks.length" class="quiet">Nobody yet: a run-up reckons with one cook who can do everything.</p>
      <ul>
        <li v-for="one in means.cooks" :key="one.id" class="sheet">
          <span
            ><b>{{ one.name }}</b
            ><br />{{ one.can.length ? one.can.map((skill) => skills[skill] ?? skill).join(', ') : 'everything' }}</span
          >
          <NButton quaternary :aria-label="`Take ${one.name} off`" @click="removeCook(one)">×</NButton>
        </li>
      </ul>
      <form class="sheet" @submit.prevent="addCook">
        <h3>Add a cook</h3>
        <label
          ><span class="label">Name</span
          ><input v-model="cook.name" class="box" maxlength="60" aria-label="Cook's name"
        /></label>
        <ProblemLine :problem="cookForm.problemAt('name')" />
        <fieldset>
          <legend>can do</legend>
          <label v-for="skill in means.skills" :key="skill" class="tick"
            ><input v-model="cook.can" type="checkbox" :value="skill" />{{ skills[skill] ?? skill }}</label
          >
          <span class="quiet">Nothing ticked: everything.</span>
        </fieldset>
        <p v-if="cookForm.trouble.value" class="problem" role="alert">{{ cookForm.trouble.value }}</p>
        <NButton type="primary" attr-type="submit">Add the cook</NButton>
      </form>
    </section>
    <section>
      <h2>What there is</h2>
      <p v-if="!means.gear.length" class="quiet">
        Nothing yet: a run-up reckons with one oven of three shelves, a grill and a sink.
      </p>
      <ul>
        <li v-for="one in means.gear" :key="one.id" class="sheet">
          <span
            ><b>{{ one.count > 1 ? `${one.count} × ` : '' }}{{ one.name }}</b
            ><br />{{ canOf(one).join(', ') }}<template v-if="one.shelves">, {{ one.shelves }} shelves</template
            ><template v-if="one.litres">, {{ millilitres(1000 * one.litres) }}</template
            ><template v-if="one.area_cm2">, {{ one.area_cm2 }} cm²</template></span
          >
          <NButton quaternary :aria-label="`Take ${one.name} away`" @click="removeGear(one)">×</NButton>
        </li>
      </ul>
      <form class="sheet" @submit.prevent="addGear">
        <h3>Add a thing</h3>
        <ChoiceField
          label="Kind"
          name="Kind of thing"
          :value="gear.kind"
          :options="kinds"
          @change="gear.kind = $event"
        />
        <ProblemLine :problem="gearForm.problemAt('kind')" />
        <label
          ><span class="label">What you call it</span
          ><input v-model="gear.name" class="box" maxlength="60" aria-label="Name of the thing"
        /></label>
        <ProblemLine :problem="gearForm.problemAt('name')" />
        <div class="two">
          <label
            ><span class="label">how many</span
            ><input v-model="gear.count" class="box" inputmode="numeric" aria-label="How many"
          /></label>
          <label
            ><span class="label">shelves</span
            ><input v-model="gear.shelves" class="box" inputmode="numeric" placeholder="usual" aria-label="Shelves"
          /></label>
          <label
            ><span class="label">surface, cm²</span
            ><input
              v-model="gear.area_cm2"
              class="box"
              inputmode="decimal"
              placeholder="usual"
              aria-label="Surface, cm²"
          /></label>
          <label
            ><span class="label">holds, L</span
            ><input v-model="gear.litres" class="box" inputmode="decimal" placeholder="usual" aria-label="Holds, L"
          /></label>
        </div>
        <ProblemLine
          v-for="field in ['count', 'shelves', 'area_cm2', 'litres', 'can']"
          :key="field"
          :problem="gearForm.problemAt(field)"
        />
        <label v-if="gear.kind === OTHER"
          ><span class="label">can do (bake, gratinate, toast, fry, steam, boil, sear, hold …)</span
          ><input v-model="gear.can" class="box" aria-label="What it can do"
        /></label>
        <p v-if="gearForm.trouble.value" class="problem" role="alert">{{ gearForm.trouble.value }}</p>
        <NButton type="primary" attr-type="submit">Add it</NButton>
      </form>
    </section>
    <Ways :ways="means.ways" :own="means.own_ways" @changed="load" />
  </div>
</template>

<style scoped>
.brigade {
  display: grid;
  grid-template-columns: repeat(auto-fit, minmax(300px, 1fr));
  gap: 8px 28px;
  align-items: start;
}
ul {
  display: flex;
  flex-direction: column;
  gap: 6px;
  margin: 8px 0;
  padding: 0;
  list-style: none;
}
li {
  display: flex;
  justify-content: space-between;
  align-items: center;
  gap: 8px;
  padding: 8px 12px;
}
form {
  display: flex;
  flex-direction: column;
  gap: 8px;
  padding: 12px 14px;
}
.tick {
  display: flex;
  align-items: center;
  gap: 8px;
  min-height: 34px;
}
.tick input {
  width: 22px;
  height: 22px;
}
.two {
  display: grid;
  grid-template-columns: 1fr 1fr;
  gap: 8px;
}
.wide {
  grid-column: 1 / -1;
}
</style>
