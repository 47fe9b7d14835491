<script setup lang="ts">
/** The ingredients, searched, corrected, added, and exchanged as CSV. */
import { NButton, NInput } from 'naive-ui'
import { computed, ref } from 'vue'
import { api, ask, type Schemas } from '@/api/client'
import Dialog from '@/parts/Dialog.vue'
import { number } from '@/parts/format'
import { useSession } from '@/shell/session'
import IngredientDialog from './IngredientDialog.vue'
import ProblemLine from '@/parts/ProblemLine.vue'
import { fixed } from '@/parts/ways'

const session = useSession()
const search = ref('')
const editing = ref<string | null>(null)
const rows = computed(() => {
  const wanted = search.value.toLowerCase().split(/\s+/)
  const roles = session.catalogue?.roles ?? {}
  return [...session.ingredients.values()].filter((row) =>
    wanted.every((word) =>
      `${row.name} ${row.aliases.join(' ')} ${row.role} ${roles[row.role] ?? ''} ${row.allergens.join(' ')} ${row.own ? 'own' : ''}`
        .toLowerCase()
        .includes(word),
    ),
  )
})

const text = ref('')
const report = ref<Schemas['CsvReport'] | null>(null)
const trouble = ref('')
async function take(event: Event): Promise<void> {
  const input = event.target as HTMLInputElement
  const file = input.files?.[0]
  if (!file) return
  text.value = await file.text()
  input.value = ''
  await read(false)
}
async function read(keep: boolean): Promise<void> {
  trouble.value = ''
  try {
    report.value = await ask(api.POST('/api/larder/csv', { body: { text: text.value, keep } }))
    if (keep) {
      await session.reload()
      trouble.value = `${report.value.kept} rows kept.`
      report.value = null
    }
  } catch (error) {
    report.value = null
    trouble.value = (error as Error).message
  }
}
const count = (status: string) => report.value?.rows.filter((row) => row.status === status).length ?? 0
const told = computed(() => report.value?.rows.filter((row) => row.status !== 'same') ?? [])
</script>

<template>
  <section class="ingredients">
    <div class="head">
      <NInput
        v-model:value="search"
        class="search"
        clearable
        placeholder="Search ingredients, kinds, allergens"
        :input-props="{ 'aria-label': 'Search the larder' }"
      />
      <NButton type="primary" @click="editing = ''">New ingredient</NButton>
      <a class="link" href="/api/larder/csv" download="larder.csv">CSV out</a>
      <label class="link"
        >CSV in<input type="file" accept=".csv,text/csv" aria-label="Larder file" @change="take"
      /></label>
    </div>
    <p v-if="trouble" class="good-news" role="status">{{ trouble }}</p>
    <p class="quiet">
      {{ rows.length }} ingredients, per 100 g. Figures are typical values, with the spread such products show; a label
      in your hand knows better. Press a row to correct it.
    </p>
    <div class="scroll sheet">
      <table class="grid">
        <thead>
          <tr>
            <th>Ingredient</th>
            <th class="n">price a kg</th>
            <th class="n">water</th>
            <th class="n">fat</th>
            <th class="n">salt</th>
            <th class="n">g/mL</th>
            <th class="n">usable</th>
            <th>allergens</th>
            <th>where from</th>
          </tr>
        </thead>
        <tbody>
          <tr v-for="row in rows" :key="row.key" @click="editing = row.key">
            <td>
              <button class="plain name" :aria-label="`Correct ${row.name}`">{{ row.name }}</button><span
                v-if="row.own"
                class="own"
                >yours</span
              >
            </td>
            <td class="n">{{ fixed(row.price_per_kg, 2) }}</td>
            <td class="n">{{ number(row.water) }}</td>
            <td class="n">{{ number(row.fat) }}</td>
            <td class="n">{{ number(row.salt) }}</td>
            <td class="n">{{ number(row.density) }}</td>
            <td class="n">{{ row.usable_pct < 100 ? `${number(row.usable_pct)} %` : '' }}</td>
            <td>{{ row.allergens.join(', ') }}</td>
            <td class="quiet">{{ row.origin }}, ± {{ row.spread_pct }} %</td>
          </tr>
        </tbody>
      </table>
      <p v-if="!rows.length" class="quiet none">Nothing by that name.</p>
    </div>
    <IngredientDialog :editing="editing" @close="editing = null" />
    <Dialog
      :show="report !== null"
      title="What the file holds"
      width="760px"
      @update:show="(show: boolean) => show || (report = null)"
    >
      <template v-if="report">
        <p>
          <b>{{ count('new') }}</b> new, <b>{{ count('changed') }}</b> changed, {{ count('same') }} the same,
          <b>{{ count('refused') }}</b> refused.
        </p>
        <ul class="report">
          <li v-for="row in told" :key="row.line" :class="row.status">
            <span class="quiet">line {{ row.line }}</span> <b>{{ row.key || 'no key' }}</b> {{ row.status
            }}<template v-if="row.changed.length">: {{ row.changed.join(', ') }}</template>
            <ProblemLine v-for="p in row.problems" :key="p.field" :problem="p" :subject="`${p.field}:`" />
          </li>
        </ul>
        <NButton type="primary" :disabled="!(count('new') + count('changed'))" @click="read(true)"
          >Keep the {{ count('new') + count('changed') }} good rows</NButton
        >
      </template>
    </Dialog>
  </section>
</template>

<style scoped>
.ingredients {
  display: flex;
  flex-direction: column;
  gap: 8px;
}
.head {
  display: flex;
  flex-wrap: wrap;
  gap: 8px;
}
.search {
  width: min(360px, 100%);
}
.link {
  display: flex;
  align-items: center;
  min-height: 44px;
  padding: 0 14px;
  border: 1px solid var(--fog3);
  border-radius: 8px;
  color: inherit;
  font-weight: 600;
  text-decoration: none;
  cursor: pointer;
}
.link:focus-within {
  outline: 3px solid var(--russet);
}
.link input {
  position: absolute;
  width: 1px;
  opacity: 0;
}
tbody tr {
  cursor: pointer;
}
tbody tr:hover {
  background: var(--white);
}
.name {
  min-height: 40px;
  font-weight: 700;
  text-align: left;
}
td.quiet {
  white-space: nowrap;
  font-size: 14px;
}
.none {
  padding: 14px;
}
.report {
  max-height: 46vh;
  margin: 8px 0;
  padding: 0;
  overflow: auto;
  list-style: none;
}
.report li {
  padding: 4px 0;
  border-top: 1px solid var(--fog2);
}
</style>
