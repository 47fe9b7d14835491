<script setup lang="ts">
/** What is planned: services by date, and the dishes they are made of. */
import { useDebounceFn } from '@vueuse/core'
import { NButton, NDropdown, NInput, useMessage } from 'naive-ui'
import { ref } from 'vue'
import { RouterLink, useRouter } from 'vue-router'
import { api, ask, type Schemas } from '@/api/client'
import { day } from '@/parts/format'
import { onKey } from '@/shell/keys'
import { useList } from '@/shell/list'
import { useOffList } from '@/shell/offList'
import { usePages } from '@/shell/pages'

const router = useRouter()
const message = useMessage()
const offList = useOffList()
const search = ref('')
const any = ref(false)
const dishes = ref<Schemas['DishName'][]>([])
const {
  rows: services,
  total,
  end,
  left,
  load: loadPages,
  more,
} = usePages((span) => ask(api.GET('/api/services', { params: { query: { ...span, q: search.value } } })))
const { trouble, load, tell } = useList(async () => {
  await ask(api.POST('/api/services/carry-on'))
  const [, named] = await Promise.all([loadPages(), ask(api.GET('/api/dishes/names'))])
  dishes.value = named
  if (!search.value) any.value = total.value > 0
})
const searchSoon = useDebounceFn(() => loadPages(true).catch(() => load()), 120)
/** So many dishes are named here; the rest is a press away. */
const NAMED = 24
const path = (id: number) => ({ params: { path: { service_id: id } } })
async function begin(): Promise<void> {
  await tell(async () => {
    const made = await ask(
      api.POST('/api/services', { body: { document: { name: 'New service', lines: [] }, revision: 0 } }),
    )
    await router.push(`/service/${made.id}`)
  })
}
/** A service of another kitchen's, with its dishes, sauces and pans. */
async function fromFile(files: FileList | null): Promise<void> {
  const text = await files?.[0]?.text()
  if (text === undefined) return
  await tell(async () => {
    const made = await ask(api.POST('/api/services/file', { body: { text } }))
    await router.push(`/service/${made.id}`)
  })
}
const copy = (row: Schemas['ServiceLine'], to: 'tomorrow' | 'week') =>
  tell(async () => {
    const next = to === 'week' ? null : new Date(Date.now() + 86_400_000).toISOString().slice(0, 10)
    const made = await ask(api.POST('/api/services/{service_id}/copy', { ...path(row.id), body: { day: next } }))
    message.success(`“${made.name}” is planned for ${day(made.date!)}.`)
  })
const remove = (row: Schemas['ServiceLine']) =>
  tell(async () => {
    await ask(api.DELETE('/api/services/{service_id}', path(row.id)))
    offList(row.name, () => tell(() => ask(api.POST('/api/services/{service_id}/restore', path(row.id)))))
  })
const acts = [
  { key: 'tomorrow', label: 'The same tomorrow' },
  { key: 'week', label: 'The same a week on' },
  { key: 'remove', label: 'Delete' },
]
function act(key: string, row: Schemas['ServiceLine']): void {
  if (key === 'remove') void remove(row)
  else void copy(row, key as 'tomorrow' | 'week')
}
onKey((key) => {
  if (key !== 'n') return false
  void begin()
  return true
})
</script>

<template>
  <div class="place">
    <header>
      <h1>Service</h1>
      <NInput
        v-if="any"
        v-model:value="search"
        class="search"
        clearable
        placeholder="Search by name"
        :input-props="{ 'aria-label': 'Search' }"
        @update:value="searchSoon"
      />
      <a v-if="any" class="file" href="/api/services/calendar.ics">Calendar</a>
      <label class="file"
        >From a file
        <input
          type="file"
          accept="application/json,.json"
          aria-label="A service from a file"
          @change="fromFile(($event.target as HTMLInputElement).files)"
      /></label>
      <NButton type="primary" @click="begin">New service</NButton>
    </header>
    <p v-if="trouble" class="problem" role="alert">
      {{ trouble }} <NButton size="small" @click="load">Try again</NButton>
    </p>
    <section>
      <p v-if="services && !services.length && search" class="quiet">Nothing by that name.</p>
      <p v-else-if="services && !services.length" class="empty dashed">
        Nothing planned. A service is a few dishes with their portions: from those come the sauce each needs, the pots
        to make it in, and the sheet to buy, weigh and fill by.
      </p>
      <ul>
        <li v-for="row in services ?? []" :key="row.id" class="sheet">
          <RouterLink class="open" :to="`/service/${row.id}`">
            <span class="quiet"
              >{{ row.date ? day(row.date) : 'no day yet'
              }}<template v-if="row.repeats === 'weekly'"> · every week</template></span
            >
            <h2>{{ row.name }}</h2>
            <span
              ><b>{{ row.portions }}</b> portions of {{ row.dishes }} {{ row.dishes === 1 ? 'dish' : 'dishes' }}</span
            >
          </RouterLink>
          <NDropdown trigger="click" :options="acts" @select="(key: string) => act(key, row)">
            <NButton :aria-label="`More for ${row.name}`">More</NButton>
          </NDropdown>
        </li>
      </ul>
      <p v-if="left > 0" ref="end" class="rest">
        <NButton @click="more">Show more: {{ left }} to come</NButton>
      </p>
    </section>
    <section>
      <h2>Your dishes</h2>
      <p v-if="services && !dishes.length" class="quiet">
        A dish says which sauces it takes, how, over what and in which vessel.
      </p>
      <ul class="dishes">
        <li v-for="dish in dishes.slice(0, NAMED)" :key="dish.id">
          <RouterLink class="plain" :to="`/dishes/${dish.id}`">{{ dish.name }}</RouterLink>
        </li>
      </ul>
      <p>
        <RouterLink class="all" to="/dishes">{{
          dishes.length > NAMED ? `All ${dishes.length} dishes, new ones` : 'All dishes, new ones'
        }}</RouterLink>
      </p>
    </section>
  </div>
</template>

<style scoped>
.place {
  display: grid;
  grid-template-columns: minmax(0, 3fr) minmax(300px, 2fr);
  gap: 12px 28px;
  align-items: start;
  max-width: 1400px;
  padding: 16px 20px 24px;
}
header {
  grid-column: 1 / -1;
  display: flex;
  flex-wrap: wrap;
  gap: 8px 0;
  justify-content: space-between;
  align-items: center;
}
h1 {
  flex: 1;
  font-size: 30px;
}
.file {
  display: flex;
  align-items: center;
  min-height: 44px;
  margin-right: 12px;
  padding: 0 14px;
  border: 1px solid var(--fog3);
  border-radius: 8px;
  background: var(--white);
  font-weight: 600;
  cursor: pointer;
}
.file:focus-within {
  outline: 3px solid var(--ink);
}
.file input {
  width: 1px;
  opacity: 0;
}
ul {
  display: flex;
  flex-direction: column;
  gap: 8px;
  margin: 0;
  padding: 0;
  list-style: none;
}
section > ul > li {
  display: flex;
  align-items: center;
  gap: 8px;
  padding-right: 12px;
}
section > ul > li.sheet {
  content-visibility: auto;
  contain-intrinsic-size: auto 96px;
}
.search {
  width: min(280px, 100%);
  margin-right: 12px;
}
.rest {
  padding: 12px 0;
}
.open {
  flex: 1;
  padding: 12px 16px;
  color: inherit;
  text-decoration: none;
}
.open h2 {
  font-size: 24px;
}
.open b {
  font-size: 20px;
}
.dishes {
  gap: 0;
}
.dishes li {
  border-top: 1px solid var(--fog2);
}
.all {
  display: inline-block;
  padding: 12px 0;
}
.dishes .plain {
  display: flex;
  flex: 1;
  align-items: center;
  min-height: 46px;
  color: inherit;
  text-decoration: none;
  font-size: 17px;
  font-weight: 600;
  text-align: left;
}
.empty {
  font-size: 18px;
}
@media (max-width: 900px) {
  .place {
    grid-template-columns: minmax(0, 1fr);
  }
}
</style>
