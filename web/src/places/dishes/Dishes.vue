<script setup lang="ts">
/** The kitchen's dishes, and kinds of dish to start a new one from. */
import { NButton } from 'naive-ui'
import { ref } from 'vue'
import { RouterLink, useRoute, useRouter } from 'vue-router'
import { api, ask, type Schemas } from '@/api/client'
import { begun } from '@/shell/document'
import { onKey } from '@/shell/keys'
import { useList } from '@/shell/list'
import { useOffList } from '@/shell/offList'
import { useSession } from '@/shell/session'

const route = useRoute()
const router = useRouter()
const offList = useOffList()
const session = useSession()
const dishes = ref<Schemas['DishOut'][] | null>(null)
const starts = ref<Schemas['DishStartOut'][]>([])
const { trouble, load, tell } = useList(async () => {
  ;[dishes.value, starts.value] = await Promise.all([ask(api.GET('/api/dishes')), ask(api.GET('/api/dishes/starts'))])
})
const to = (path: string, start = '') => ({
  path,
  query: { ...(start ? { start } : {}), ...(route.query.service ? { service: route.query.service } : {}) },
})
const remove = (dish: Schemas['DishOut']) =>
  tell(async () => {
    const at = { params: { path: { dish_id: dish.id } } }
    await ask(api.DELETE('/api/dishes/{dish_id}', at))
    offList(dish.name, () => tell(() => ask(api.POST('/api/dishes/{dish_id}/restore', at))))
  })
const what = (dish: Schemas['DishOut']) =>
  (dish.document.solids ?? [])
    .slice(0, 3)
    .map((s) => session.ingredients.get(s.ingredient)?.name.split(',')[0]!.toLowerCase() ?? s.ingredient)
    .join(', ')
onKey((key) => {
  if (key !== 'n') return false
  void router.push(to('/dishes/new'))
  return true
})
</script>

<template>
  <div class="place">
    <section>
      <h1>Dishes</h1>
      <p v-if="trouble" class="problem" role="alert">
        {{ trouble }} <NButton size="small" @click="load">Try again</NButton>
      </p>
      <p v-if="begun('dish')" class="warning">
        A dish was begun here and not kept.
        <NButton size="small" @click="router.push(to('/dishes/new'))">Go on with it</NButton>
      </p>
      <p v-if="dishes && !dishes.length" class="empty dashed">
        No dishes yet. A dish says which sauces it takes, how, over what and in which vessel; it is seen while it is
        made. Start from one of these kinds.
      </p>
      <ul>
        <li v-for="dish in dishes ?? []" :key="dish.id" class="sheet">
          <RouterLink class="open" :to="`/dishes/${dish.id}`">
            <b>{{ dish.name }}</b>
            <span class="quiet">{{ what(dish) }}</span>
          </RouterLink>
          <NButton quaternary :aria-label="`Take ${dish.name} off`" @click="remove(dish)">×</NButton>
        </li>
      </ul>
    </section>
    <section>
      <h2>A new one</h2>
      <ul class="starts">
        <li v-for="one in starts" :key="one.key">
          <RouterLink class="open sheet" :to="to('/dishes/new', one.key)">
            <b>{{ one.name }}</b>
            <span class="quiet">{{ one.why }}.</span>
          </RouterLink>
        </li>
        <li>
          <RouterLink class="open sheet" :to="to('/dishes/new')">
            <b>Something else</b><span class="quiet">From nothing.</span>
          </RouterLink>
        </li>
      </ul>
    </section>
  </div>
</template>

<style scoped>
.place {
  display: grid;
  grid-template-columns: minmax(0, 2fr) minmax(0, 3fr);
  gap: 12px 28px;
  align-items: start;
  max-width: 1500px;
  padding: 16px 20px 24px;
}
h1 {
  margin-bottom: 8px;
  font-size: 30px;
}
h2 {
  margin: 6px 0 8px;
  font-size: 24px;
}
ul {
  display: flex;
  flex-direction: column;
  gap: 6px;
  margin: 0;
  padding: 0;
  list-style: none;
}
.starts {
  display: grid;
  grid-template-columns: repeat(auto-fill, minmax(230px, 1fr));
  gap: 8px;
}
li {
  display: flex;
  align-items: center;
}
.open {
  display: flex;
  flex: 1;
  flex-direction: column;
  min-height: 48px;
  padding: 8px 14px;
  color: inherit;
  text-decoration: none;
}
.open b {
  font-size: 18px;
}
.starts .open {
  height: 100%;
}
@media (max-width: 900px) {
  .place {
    grid-template-columns: minmax(0, 1fr);
  }
}
</style>
