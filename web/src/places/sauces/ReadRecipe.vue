<script setup lang="ts">
/** A recipe from elsewhere: pasted or from a file, read line by line, settled, then opened. */
import { NButton, NInput, NSelect } from 'naive-ui'
import { StorageSerializers, useSessionStorage } from '@vueuse/core'
import { onMounted, ref } from 'vue'
import { useRouter } from 'vue-router'
import { api, ask, Refused, type Problem, type Schemas } from '@/api/client'
import { grams, minutes } from '@/parts/format'
import NumberField from '@/parts/NumberField.vue'
import { fixed } from '@/parts/ways'
import { leaveFor } from '@/shell/document'
import { firstAt } from '@/shell/form'
import { useSession } from '@/shell/session'
import RecipeLine, { type Said } from './RecipeLine.vue'

const router = useRouter()
const session = useSession()
/** Kept while this window is open: leaving the place loses nothing. */
const text = useSessionStorage('kestrel.recipe', '')
const found = ref<Schemas['RecipeRead'] | null>(null)
const said = useSessionStorage<Record<number, Said>>('kestrel.recipe.said', {})
/** Counts the recipes begun here: a new one starts with nothing typed. */
const round = ref(0)
/** What it is for, once that was chosen here; before that the recipe's own word is taken. */
const wanted = useSessionStorage<Schemas['MeantForIn'] | null>('kestrel.recipe.for', null, {
  serializer: StorageSerializers.object,
})
const problems = ref<Problem[]>([])
const trouble = ref('')
const busy = ref(false)

const useOf = (key: string) => session.uses.find((u) => u.key === key)

async function read(): Promise<void> {
  busy.value = true
  problems.value = []
  trouble.value = ''
  try {
    const settled = Object.entries(said.value).map(([line, one]) => ({
      line: Number(line),
      ingredient: one.ingredient,
      amount: one.amount || null,
    }))
    found.value = await ask(api.POST('/api/work/read', { body: { text: text.value, settled, wanted: wanted.value } }))
  } catch (error) {
    if (error instanceof Refused) problems.value = error.problems
    trouble.value = problems.value.some((p) => p.field.startsWith('settled')) ? '' : (error as Error).message
  } finally {
    busy.value = false
  }
}
function want(change: Partial<Schemas['MeantForIn']>): void {
  const now = wanted.value ?? found.value!.reading.wanted!
  wanted.value = { use: now.use, portions: now.portions, grade: now.grade, ...change }
  void read()
}
function begin(): void {
  said.value = {}
  wanted.value = null
  round.value += 1
  found.value = null
  void read()
}
async function take(event: Event): Promise<void> {
  const file = (event.target as HTMLInputElement).files?.[0]
  if (!file) return
  text.value = await file.text()
  begin()
}
async function settle(i: number, one: Said): Promise<void> {
  const before = { ...said.value }
  said.value = { ...said.value, [i]: one }
  await read()
  // What is refused in a form of its own is typed again there; over an amount of ours it stays to be seen.
  if (problems.value.length && !one.over) said.value = before
}
async function again(i: number): Promise<void> {
  said.value = Object.fromEntries(Object.entries(said.value).filter(([line]) => Number(line) !== i))
  await read()
}
onMounted(() => {
  if (location.hash.startsWith('#sheet=')) {
    text.value = location.href
    void router.replace('/sauces/read')
    begin()
  } else if (text.value.trim()) void read()
})
function open(): void {
  const sheet = found.value?.reading.sheet
  if (!sheet) return
  // The builder brings back what is kept here, as it does after a reload.
  leaveFor('draft', sheet)
  void router.push('/sauces/new')
}
</script>

<template>
  <div class="place">
    <header>
      <h1>Read a recipe</h1>
      <NButton @click="router.push('/sauces')">Back to the sauces</NButton>
    </header>
    <section class="paste">
      <p class="quiet">
        Paste a recipe, or tell it as you would at the stove: with amounts or without. A recipe file (JSON-LD), a saved
        web page that holds one, or one of our sheets is read too. Nothing is guessed silently.
      </p>
      <NInput
        v-model:value="text"
        type="textarea"
        :rows="found ? 5 : 14"
        placeholder="Cheese sauce&#10;50 g butter&#10;50 g plain flour&#10;600 ml milk&#10;&#10;Method&#10;Melt the butter, stir in the flour, cook for 2 minutes …"
        :input-props="{ 'aria-label': 'Recipe' }"
      />
      <div class="buttons">
        <NButton type="primary" :loading="busy" :disabled="!text.trim()" @click="begin">Read it</NButton>
        <label class="file">
          From a file
          <input type="file" accept=".json,.jsonld,.txt,.md,.html,.htm" aria-label="Recipe file" @change="take" />
        </label>
      </div>
      <p v-if="trouble" class="problem" role="alert">{{ trouble }}</p>
    </section>
    <template v-if="found">
      <section v-if="found.reading.lines.length">
        <h2>{{ found.reading.name }}</h2>
        <p aria-live="polite">
          <b>{{ found.reading.lines.length - found.reading.open_lines }}</b> of {{ found.reading.lines.length }} lines
          read<template v-if="found.reading.open_lines"
            >; <b>{{ found.reading.open_lines }}</b> for you to settle</template
          ><template v-if="found.reading.ours"
            >; <b>{{ found.reading.ours }}</b> with an amount of ours: type yours over it</template
          >.
          <template v-if="found.reading.makes"> The recipe says it makes “{{ found.reading.makes }}”.</template>
        </p>
        <div v-if="found.reading.ours && found.reading.wanted" class="wanted">
          <NSelect
            :value="found.reading.wanted.use"
            :options="session.uses.map((u) => ({ value: u.key, label: u.name }))"
            :virtual-scroll="false"
            aria-label="What it is for"
            @update:value="(use: string) => want({ use, grade: null })"
          />
          <NumberField
            :value="found.reading.wanted.portions"
            label="portions"
            :problem="firstAt(problems, 'wanted.portions')"
            @change="(text: string) => want({ portions: Number(text.replace(',', '.')) })"
          />
          <NSelect
            :value="found.reading.wanted.grade ?? useOf(found.reading.wanted.use)?.grade"
            :options="session.grades.map((g) => ({ value: g.key, label: g.name }))"
            :virtual-scroll="false"
            aria-label="How thick"
            @update:value="(grade: string) => want({ grade })"
          />
        </div>
        <ol class="lines">
          <RecipeLine
            v-for="(line, i) in found.reading.lines"
            :key="`${round}.${i}`"
            :line="line"
            :said="said[i]"
            :problem="firstAt(problems, `settled[${i}]`)"
            @settle="settle(i, $event)"
            @again="again(i)"
          />
        </ol>
      </section>
      <section class="made sheet">
        <template v-if="found.reading.sheet && found.final">
          <h2>{{ session.gradeName(found.final.grade) || found.final.reason }}</h2>
          <p>
            {{ found.reading.sheet.steps?.length }} steps, {{ grams(found.final.total_g ?? found.final.mass_g) }},
            {{ minutes(found.final.minutes) }}, salt {{ fixed(found.final.salt_pct, 2) }} %.
          </p>
        </template>
        <p v-else>Nothing for a sauce yet: settle a line.</p>
        <template v-if="found.reading.assumed.length">
          <span class="label">Taken for granted</span>
          <ul>
            <li v-for="one in found.reading.assumed" :key="one">{{ one }}</li>
          </ul>
        </template>
        <template v-if="found.reading.beside.length">
          <span class="label">Goes with it</span>
          <ul>
            <li v-for="one in found.reading.beside" :key="one">{{ one }}</li>
          </ul>
        </template>
        <template v-if="found.reading.unused.length">
          <span class="label">Said in the method, nothing taken from it</span>
          <ul>
            <li v-for="one in found.reading.unused" :key="one">{{ one }}</li>
          </ul>
        </template>
        <NButton type="primary" :disabled="!found.reading.sheet" @click="open"
          >Open it as a sauce{{ found.reading.open_lines ? ', without the open lines' : '' }}</NButton
        >
      </section>
    </template>
  </div>
</template>

<style scoped>
.place {
  display: grid;
  grid-template-columns: minmax(0, 7fr) minmax(300px, 4fr);
  gap: 14px 24px;
  align-items: start;
  max-width: 1400px;
  padding: 16px 20px 24px;
}
.place > header,
.paste {
  grid-column: 1 / -1;
}
.place > header {
  display: flex;
  justify-content: space-between;
}
h1 {
  font-size: 30px;
}
.paste {
  display: flex;
  flex-direction: column;
  gap: 8px;
}
.buttons {
  display: flex;
  gap: 10px;
  align-items: center;
}
.file {
  display: flex;
  align-items: center;
  min-height: 44px;
  padding: 0 16px;
  border: 1px solid var(--fog3);
  border-radius: 8px;
  font-weight: 600;
  cursor: pointer;
}
.file:focus-within {
  outline: 3px solid var(--russet);
}
.file input {
  position: absolute;
  opacity: 0;
  width: 1px;
}
.wanted {
  display: grid;
  grid-template-columns: minmax(0, 1fr) 120px 160px;
  gap: 10px;
  align-items: end;
}
.lines {
  display: flex;
  flex-direction: column;
  gap: 6px;
  margin: 8px 0 0;
  padding: 0;
  list-style: none;
}
.made {
  display: flex;
  flex-direction: column;
  gap: 8px;
  padding: 14px 18px;
}
.made ul {
  margin: 0;
  padding-left: 20px;
}
@media (max-width: 900px) {
  .wanted {
    grid-template-columns: minmax(0, 1fr) minmax(0, 1fr);
  }
  .wanted > :first-child {
    grid-column: 1 / -1;
  }
  .place {
    grid-template-columns: minmax(0, 1fr);
  }
}
</style>
