<script setup lang="ts">
/** One service: dishes and portions left; right the pots, the filling, the sheet, the cost. */
import { useEventListener, useTitle } from '@vueuse/core'
import { NButton, NDropdown, NModal, useMessage } from 'naive-ui'
import { computed, onMounted, ref } from 'vue'
import { onBeforeRouteLeave, useRoute, useRouter } from 'vue-router'
import { api, ask, type Schemas } from '@/api/client'
import { millilitres } from '@/parts/format'
import { useHob } from '@/shell/hob'
import { onKey } from '@/shell/keys'
import DishDialog from './DishDialog.vue'
import Filling from './Filling.vue'
import FlowPicture from './FlowPicture.vue'
import Lines from './Lines.vue'
import MatrixCost from './MatrixCost.vue'
import NodeDetail from './NodeDetail.vue'
import ProductionSheet from './ProductionSheet.vue'
import { useService } from './service'
import ShortDialog from './ShortDialog.vue'

const props = defineProps<{ id: number }>()
const route = useRoute()
const router = useRouter()
const message = useMessage()
const hob = useHob()
const service = useService()
const { doc, plan, production, changed, trouble, stored, conflict, dirty, past, future } = service
const dishes = ref<Schemas['DishOut'][]>([])
const lost = ref('')
const chosen = ref<string | null>(null)
// In the address, so that whoever comes back from the stove is where they were.
const tab = computed({
  get: () => String(route.query.part ?? 'pots'),
  set: (part: string) => void router.replace({ query: part === 'pots' ? {} : { part } }),
})
const newDish = ref(false)
const shortOf = ref<{ ingredient: string; name: string } | null>(null)
const saving = ref(false)
useTitle(computed(() => `${doc.value.name || 'Service'} · Kestrel Fog`))

async function loadDishes(): Promise<void> {
  dishes.value = await ask(api.GET('/api/dishes'))
}
onMounted(async () => {
  try {
    await Promise.all([loadDishes(), loadBatches(), service.open(props.id)])
  } catch (error) {
    lost.value = (error as Error).message
  }
})
const times = computed(() => ((doc.value.serve_at ?? []) as string[]).join(', '))
function setTimes(text: string): void {
  void service.edit((d) => (d.serve_at = text.split(/[,;\s]+/).filter(Boolean)), 'times')
}
async function save(over = false): Promise<boolean> {
  saving.value = true
  const done = (await service.save(over)) !== null
  saving.value = false
  if (done) message.success('Saved.')
  else if (service.problems.value.length) message.warning('Not saved: mend the entry marked first.')
  return done
}
const more = [
  { key: 'sheet', label: 'Print the production sheet (A4)' },
  { key: 'csv', label: 'Production sheet as CSV' },
  { key: 'json', label: 'Everything as JSON' },
]
async function act(key: string): Promise<void> {
  if (dirty.value && !(await save())) return
  if (key === 'sheet') void router.push(`/service/${props.id}/sheet`)
  else location.assign(`/api/services/${props.id}/${key === 'csv' ? 'production.csv' : 'whole.json'}`)
}
const batches = ref<Schemas['PotOfService'][]>([])
async function loadBatches(): Promise<void> {
  batches.value = await ask(
    api.GET('/api/stove/of-service/{service_id}', { params: { path: { service_id: props.id } } }),
  )
}
async function cook(pot: string): Promise<void> {
  if (dirty.value && !(await save())) return
  try {
    const path = { service_id: props.id }
    const batch = await ask(api.POST('/api/stove/of-service/{service_id}', { params: { path }, body: { pot } }))
    void hob.look().catch(() => undefined)
    await router.push(`/stove/${batch.id}`)
  } catch (error) {
    message.error((error as Error).message)
  }
}
async function renew(sauceId: number): Promise<void> {
  try {
    await service.renew(sauceId)
  } catch (error) {
    message.error((error as Error).message)
  }
}
useEventListener(window, 'keydown', (event: KeyboardEvent) => {
  if (!(event.ctrlKey || event.metaKey)) return
  const key = event.key.toLowerCase()
  if (key === 's') void save()
  else if (key === 'z' && event.shiftKey) service.redo()
  else if (key === 'z') service.undo()
  else return
  event.preventDefault()
})
onBeforeRouteLeave(() => {
  if (dirty.value && stored.value) message.info('Unsaved changes are kept here until you come back.')
})
async function dishMade(dish: Schemas['DishOut']): Promise<void> {
  newDish.value = false
  await loadDishes()
  await service.edit((d) => d.lines.push({ dish: String(dish.id), portions: 10 }))
}
onKey((key) => {
  if (key !== 'Escape' || !chosen.value) return false
  chosen.value = null
  return true
})
const tabs = [
  { key: 'pots', name: 'Pots' },
  { key: 'filling', name: 'Filling' },
  { key: 'sheet', name: 'Production sheet' },
  { key: 'cost', name: 'Allergens, cost' },
] as const
</script>

<template>
  <div v-if="lost" class="lost">
    <h1>This service cannot be opened</h1>
    <p>{{ lost }}</p>
    <NButton @click="router.push('/service')">Back to the services</NButton>
  </div>
  <div v-else-if="plan" class="service">
    <header>
      <input
        class="name"
        :value="doc.name"
        maxlength="120"
        aria-label="Name of the service"
        @input="service.edit((d) => (d.name = ($event.target as HTMLInputElement).value), 'name')"
      />
      <label
        ><span class="label">day</span
        ><input
          type="date"
          :value="doc.date ?? ''"
          aria-label="Day"
          @change="service.edit((d) => (d.date = ($event.target as HTMLInputElement).value || null))"
      /></label>
      <label
        ><span class="label">served at</span
        ><input
          class="times"
          :value="times"
          placeholder="12:00, 13:15"
          aria-label="Served at"
          @change="setTimes(($event.target as HTMLInputElement).value)"
      /></label>
      <label
        class="weekly"
        :title="doc.date ? 'Planned again by itself for the same weekday once its day is over' : 'Give it a day first'"
        ><input
          type="checkbox"
          :disabled="!doc.date"
          :checked="doc.repeats === 'weekly'"
          @change="service.edit((d) => (d.repeats = ($event.target as HTMLInputElement).checked ? 'weekly' : 'never'))"
        />
        every week</label
      >
      <div class="buttons">
        <NButton :disabled="!past.length" aria-label="Undo" title="Undo (Ctrl Z)" @click="service.undo">↶</NButton>
        <NButton :disabled="!future.length" aria-label="Redo" title="Redo (Ctrl Shift Z)" @click="service.redo"
          >↷</NButton
        >
        <NDropdown trigger="click" :options="more" @select="act"><NButton>Print, CSV</NButton></NDropdown>
        <NButton type="primary" :loading="saving" :disabled="!dirty" @click="save()">Save</NButton>
      </div>
      <p v-for="field in ['name', 'date', 'serve_at', 'pans']" :key="field" class="problem">
        <template v-if="service.problemAt(field)"
          >{{ field === 'pans' ? 'Your pans' : field }} {{ service.problemAt(field)!.message }}.
          {{ service.problemAt(field)!.remedy }}.</template
        >
      </p>
      <p v-if="trouble" class="problem" role="alert">{{ trouble }}</p>
    </header>
    <div class="left">
      <Lines
        :service="service"
        :dishes="dishes"
        :chosen="chosen"
        @choose="((chosen = $event), (tab = 'pots'))"
        @dish="newDish = true"
      />
    </div>
    <main class="right" :class="{ stale: service.problems.value.length }">
      <div role="tablist" aria-label="Parts of the service">
        <button v-for="t in tabs" :key="t.key" role="tab" :aria-selected="tab === t.key" @click="tab = t.key">
          {{ t.name }}
        </button>
      </div>
      <p v-for="one in changed" :key="one.sauce_id" class="warning">
        {{ one.name }} was {{ one.deleted ? 'deleted' : 'changed' }} since: this service keeps version {{ one.pinned }}.
        <NButton v-if="!one.deleted" size="small" @click="renew(one.sauce_id)">Take version {{ one.newest }}</NButton>
      </p>
      <p v-for="text in plan.warnings" :key="text" class="warning">{{ text }}</p>
      <div v-if="!plan.lines.length" class="empty">
        <h3>Which dish first?</h3>
        <p>Add a dish with its portions. What sauce it needs, which pots, what to buy: all of it follows.</p>
      </div>
      <template v-else-if="tab === 'pots'">
        <p class="sum">
          <b>{{ millilitres(plan.needs_ml) }}</b> of sauce needed;
          <b>{{ millilitres(Math.max(0, plan.left_ml)) }}</b> left over.
          <span class="quiet"
            >Each dish by halves of its own recipe would leave {{ millilitres(plan.by_recipe_ml) }}.</span
          >
        </p>
        <FlowPicture :plan="plan" :chosen="chosen" class="picture" @choose="chosen = $event" />
        <div class="list" role="group" aria-label="Pots, sauces, dishes">
          <button
            v-for="pot in plan.pots"
            :key="pot.key"
            :class="{ here: chosen === pot.key }"
            @click="chosen = pot.key"
          >
            <b>{{ pot.name }}</b> {{ millilitres(pot.made_ml) }}
          </button>
          <button v-for="b in plan.branches" :key="b.key" :class="{ here: chosen === b.key }" @click="chosen = b.key">
            {{ b.name }} <b>{{ millilitres(b.made_ml) }}</b>
          </button>
        </div>
        <div v-if="chosen" class="drawer">
          <NButton quaternary class="close" aria-label="Close the figures" @click="chosen = null">×</NButton>
          <NodeDetail :service="service" :chosen="chosen" @cook="cook" />
        </div>
        <p v-else class="quiet">Press a pot, a sauce or a dish for its figures, and to change them there.</p>
      </template>
      <Filling v-else-if="tab === 'filling'" :plan="plan" :production="production!" />
      <ProductionSheet
        v-else-if="tab === 'sheet'"
        :plan="plan"
        :production="production!"
        :batches="batches"
        @short="shortOf = $event"
        @cook="cook"
      />
      <MatrixCost v-else :plan="plan" :production="production!" />
    </main>
    <DishDialog :dish="newDish ? 'new' : null" @close="newDish = false" @saved="dishMade" />
    <ShortDialog :service="service" :of="shortOf" @close="shortOf = null" />
    <NModal
      :show="conflict !== null"
      preset="card"
      title="Somebody else was first"
      style="width: min(520px, 96vw)"
      @update:show="(show: boolean) => show || (conflict = null)"
    >
      <p>{{ conflict?.message }}</p>
      <p class="quiet">
        Theirs serves {{ ((conflict?.document.lines as unknown[]) ?? []).length }} lines, yours {{ plan.lines.length }}.
      </p>
      <div class="buttons">
        <NButton @click="save(true)">Put mine in its place</NButton>
        <NButton type="primary" @click="service.takeTheirs()">Take theirs</NButton>
      </div>
    </NModal>
  </div>
  <p v-else class="lost quiet">Counting the plates…</p>
</template>

<style scoped>
.service {
  display: grid;
  height: 100%;
  grid-template: 'head head' auto 'left right' 1fr / 336px minmax(0, 1fr);
}
header {
  grid-area: head;
  display: flex;
  flex-wrap: wrap;
  align-items: end;
  gap: 4px 12px;
  padding: 8px 14px;
  border-bottom: 1px solid var(--fog2);
  background: var(--fog0);
}
.name {
  flex: 1 1 220px;
  min-width: 0;
  min-height: 44px;
  padding: 0 6px;
  border: 1px solid transparent;
  border-radius: 6px;
  background: transparent;
  font: 600 25px var(--display);
}
.name:hover,
.name:focus {
  background: var(--white);
  border-color: var(--fog3);
}
header label input:not([type='checkbox']) {
  min-height: 40px;
  padding: 0 8px;
  border: 1px solid var(--fog3);
  border-radius: 8px;
  background: var(--white);
  font: 600 16px var(--text);
}
.times {
  width: 128px;
}
.weekly {
  display: flex;
  align-items: center;
  gap: 6px;
  min-height: 44px;
}
.weekly input {
  width: 22px;
  height: 22px;
}
.buttons {
  display: flex;
  flex-wrap: wrap;
  gap: 8px;
}
header .problem {
  flex: 1 1 100%;
}
header .problem:empty {
  display: none;
}
.left,
.right {
  overflow: auto;
  padding: 12px;
}
.right {
  display: flex;
  flex-direction: column;
  gap: 10px;
  background: var(--fog1);
}
.stale {
  opacity: 0.75;
}
.left {
  background: var(--fog1);
  border-right: 1px solid var(--fog2);
}
[role='tablist'] {
  display: flex;
  flex-wrap: wrap;
}
[role='tab'] {
  min-height: 44px;
  padding: 0 16px;
  border: 0;
  border-bottom: 4px solid transparent;
  background: none;
  font-weight: 700;
  cursor: pointer;
}
[aria-selected='true'] {
  border-color: var(--russet);
}
.sum b {
  font-size: 22px;
}
.empty {
  padding: 24px;
  border: 2px dashed var(--fog3);
  border-radius: 12px;
}
.list {
  display: none;
}
.picture {
  flex: none;
}
.drawer {
  position: sticky;
  bottom: -12px;
  flex: none;
  max-height: 56vh;
  margin: 0 -12px -12px;
  overflow: auto;
  border-top: 2px solid var(--ink2);
  background: var(--fog0);
  box-shadow: 0 -6px 18px #0002;
}
.drawer .close {
  float: right;
}
.lost {
  padding: 32px;
}
@media (max-width: 900px) {
  .service {
    display: block;
    height: auto;
  }
  .left {
    border: 0;
  }
  .picture {
    display: none;
  }
  .drawer {
    position: fixed;
    right: 0;
    bottom: var(--strip);
    left: 0;
    z-index: 4;
    margin: 0;
  }
  .list {
    display: flex;
    flex-direction: column;
    gap: 4px;
  }
  .list button {
    min-height: 48px;
    padding: 4px 12px;
    border: 2px solid var(--fog3);
    border-radius: 10px;
    background: var(--white);
    text-align: left;
  }
  .list .here {
    border-color: var(--ink);
  }
}
</style>
