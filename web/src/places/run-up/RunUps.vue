<script setup lang="ts">
/** Run-ups there are, services that have none yet, and one dish tonight. */
import { NButton, useMessage } from 'naive-ui'
import { computed, ref } from 'vue'
import { RouterLink, useRouter } from 'vue-router'
import { api, ask, type Schemas } from '@/api/client'
import { day } from '@/parts/format'
import { useList } from '@/shell/list'
import { useOffList } from '@/shell/offList'
import { offsetHere } from './run-up'
import Tonight from './Tonight.vue'

const router = useRouter()
const message = useMessage()
const offList = useOffList()
const rows = ref<Schemas['RunUpRow'][] | null>(null)
const services = ref<Schemas['ServiceLine'][]>([])
const dishes = ref<Schemas['DishOut'][]>([])
const { trouble, load, tell } = useList(async () => {
  ;[rows.value, services.value, dishes.value] = await Promise.all([
    ask(api.GET('/api/run-ups')),
    ask(api.GET('/api/services', { params: { query: {} } })).then((page) => page.rows),
    ask(api.GET('/api/dishes')),
  ])
})
const bare = computed(() => {
  const there = new Set((rows.value ?? []).map((row) => row.service_id))
  return services.value.filter((service) => !there.has(service.id) && service.dishes)
})
const alone = computed(() => (rows.value ?? []).filter((row) => row.service_id === null))
const ofServices = computed(() => (rows.value ?? []).filter((row) => row.service_id !== null))
async function plan(id: number): Promise<void> {
  try {
    const body = { service_id: id, portions: 1, serve_at: '12:00', utc_offset_min: offsetHere() }
    const made = await ask(api.POST('/api/run-ups', { body }))
    await router.push(`/run-up/${made.id}`)
  } catch (error) {
    message.error((error as Error).message)
  }
}
const remove = (row: Schemas['RunUpRow']) =>
  tell(async () => {
    const path = { params: { path: { run_up_id: row.id } } }
    await ask(api.DELETE('/api/run-ups/{run_up_id}', path))
    offList(row.name, () => tell(() => ask(api.POST('/api/run-ups/{run_up_id}/restore', path))))
  })
</script>

<template>
  <div class="place">
    <h1>Run-up</h1>
    <p v-if="trouble" class="problem" role="alert">
      {{ trouble }} <NButton size="small" @click="load">Try again</NButton>
    </p>
    <section>
      <p v-if="rows && !rows.length && !bare.length" class="dashed">
        A run-up is the plan of who does what when, back from the moment of serving. Plan a
        <RouterLink to="/service">service</RouterLink>, or one dish for tonight.
      </p>
      <ul>
        <li v-for="row in ofServices" :key="row.id" class="sheet">
          <RouterLink :to="`/run-up/${row.id}`"
            ><span class="quiet">{{ day(row.date) }}</span>
            <h2>{{ row.name }}</h2></RouterLink
          >
        </li>
        <li v-for="service in bare" :key="`s${service.id}`" class="sheet bare">
          <div>
            <span class="quiet">{{ service.date ? day(service.date) : 'no day yet' }}</span>
            <h2>{{ service.name }}</h2>
          </div>
          <NButton size="large" @click="plan(service.id)">Plan its run-up</NButton>
        </li>
      </ul>
    </section>
    <aside>
      <h2>One dish tonight</h2>
      <Tonight v-if="dishes.length" :dishes="dishes" />
      <p v-else-if="rows" class="quiet">Make a <RouterLink to="/dishes">dish</RouterLink> first.</p>
      <ul v-if="alone.length">
        <li v-for="row in alone" :key="row.id" class="sheet">
          <RouterLink :to="`/run-up/${row.id}`"
            ><span class="quiet">{{ day(row.date) }}</span> <b>{{ row.name }}</b></RouterLink
          ><NButton quaternary :aria-label="`Throw ${row.name} away`" @click="remove(row)">×</NButton>
        </li>
      </ul>
    </aside>
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
h1 {
  grid-column: 1 / -1;
  font-size: 30px;
}
ul {
  display: flex;
  flex-direction: column;
  gap: 8px;
  margin: 10px 0 0;
  padding: 0;
  list-style: none;
}
section ul {
  margin-top: 0;
}
li {
  display: flex;
  align-items: center;
  gap: 8px;
}
li a,
li > div {
  display: block;
  flex: 1;
  padding: 10px 16px;
  color: inherit;
  text-decoration: none;
}
li a > span {
  display: block;
}
.bare {
  padding-right: 12px;
  border-style: dashed;
}
h2 {
  font-size: 22px;
}
@media (max-width: 900px) {
  .place {
    grid-template-columns: minmax(0, 1fr);
  }
}
</style>
