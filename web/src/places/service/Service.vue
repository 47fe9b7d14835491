<script setup lang="ts">
/** One service: dishes and portions left; right the pots, the filling, the sheet, the cost. */
import { useTitle } from '@vueuse/core'
import { NButton, useMessage } from 'naive-ui'
import { computed, onMounted, ref } from 'vue'
import { onBeforeRouteLeave, useRoute, useRouter } from 'vue-router'
import { api, ask, type Schemas } from '@/api/client'
import Dialog from '@/parts/Dialog.vue'
import { vChoices } from '@/parts/choices'
import { spokenField } from '@/shell/form'
import { beginPot } from '@/shell/potOfService'
import { useHob } from '@/shell/hob'
import { onEditKeys, onKey } from '@/shell/keys'
import { offsetHere } from '../run-up/run-up'
import Filling from './Filling.vue'
import Lines from './Lines.vue'
import MatrixCost from './MatrixCost.vue'
import PotsTab from './PotsTab.vue'
import ProductionSheet from './ProductionSheet.vue'
import { newLineId, useService } from './service'
import ServiceHead from './ServiceHead.vue'
import ShortDialog from './ShortDialog.vue'

const props = defineProps<{ id: number }>()
const route = useRoute()
const router = useRouter()
const message = useMessage()
const hob = useHob()
const service = useService()
const { doc, plan, production, changed, stored, conflict, dirty } = service
const unread = computed(() => service.found.value?.unread ?? [])
const dishes = ref<Schemas['DishOut'][]>([])
const lost = ref('')
const chosen = ref<string | null>(null)
// In the address, so that whoever comes back from the stove is where they were.
const tab = computed({
  get: () => String(route.query.part ?? 'pots'),
  set: (part: string) => void router.replace({ query: part === 'pots' ? {} : { part } }),
})
const shortOf = ref<{ ingredient: string; name: string } | null>(null)
const saving = ref(false)
useTitle(computed(() => `${doc.value.name || 'Service'} · Kestrel Fog`))

async function loadDishes(): Promise<void> {
  dishes.value = await ask(api.GET('/api/dishes'))
}
onMounted(async () => {
  try {
    await Promise.all([loadDishes(), loadBatches(), service.open(props.id)])
    await addMade()
  } catch (error) {
    lost.value = (error as Error).message
  }
})
/** A dish that was made for this service comes back with its number: it is served. */
async function addMade(): Promise<void> {
  const { add, ...rest } = route.query
  if (!add) return
  await router.replace({ query: rest })
  const id = newLineId()
  await service.edit((d) => d.lines.push({ id, dish: String(add), portions: 10 }))
}
async function save(over = false): Promise<boolean> {
  saving.value = true
  const done = (await service.save(over)) !== null
  saving.value = false
  if (done) message.success('Saved.')
  else if (service.problems.value.length) message.warning('Not saved: mend the entry marked first.')
  return done
}
async function take(key: string): Promise<void> {
  if (dirty.value && !(await save())) return
  if (key === 'sheet') void router.push(`/service/${props.id}/sheet`)
  else if (key === 'run-up') await runUp()
  else location.assign(`/api/services/${props.id}/${key === 'csv' ? 'production.csv' : 'whole.json'}`)
}
/** The timed plan of this service. */
async function runUp(): Promise<void> {
  try {
    const body = { service_id: props.id, portions: 1, serve_at: '12:00', utc_offset_min: offsetHere() }
    const made = await ask(api.POST('/api/run-ups', { body }))
    await router.push(`/run-up/${made.id}`)
  } catch (error) {
    message.error((error as Error).message)
  }
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
    const begun = await beginPot(props.id, pot)
    if (!begun) return
    void hob.look().catch(() => undefined)
    await router.push(`/stove/${begun.id}`)
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
onEditKeys({ save: () => void save(), undo: service.undo, redo: service.redo })
onBeforeRouteLeave(() => {
  if (dirty.value && stored.value) message.info('Unsaved changes are kept here until you come back.')
})
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
    <ServiceHead class="head" :service="service" :saving="saving" @save="save()" @take="take" />
    <div class="left">
      <Lines
        :service="service"
        :dishes="dishes"
        :chosen="chosen"
        @choose="((chosen = $event), (tab = 'pots'))"
        @dish="router.push({ path: '/dishes', query: { service: String(id) } })"
      />
    </div>
    <div class="right">
      <div v-choices role="tablist" aria-label="Parts of the service">
        <button v-for="t in tabs" :key="t.key" role="tab" :aria-selected="tab === t.key" @click="tab = t.key">
          {{ t.name }}
        </button>
      </div>
      <p v-if="service.problems.value.length" class="warning" role="status">
        {{ spokenField(service.problems.value[0]!.field) }}: {{ service.problems.value[0]!.message }}.
        {{ unread.length ? 'It is left out until it is mended.' : 'What stands here is from before.' }}
      </p>
      <p v-for="one in changed" :key="one.sauce_id" class="warning">
        {{ one.name }} was {{ one.deleted ? 'deleted' : 'changed' }} since: this service keeps version {{ one.pinned }}.
        <NButton v-if="!one.deleted" size="small" @click="renew(one.sauce_id)">Take version {{ one.newest }}</NButton>
      </p>
      <p v-for="text in plan.warnings" :key="text" class="warning">{{ text }}</p>
      <div v-if="!plan.lines.length" class="dashed">
        <h3>Which dish first?</h3>
        <p>Add a dish with its portions. What sauce it needs, which pots, what to buy: all of it follows.</p>
      </div>
      <PotsTab v-else-if="tab === 'pots'" v-model:chosen="chosen" :service="service" :plan="plan" @cook="cook" />
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
    </div>
    <ShortDialog :service="service" :of="shortOf" @close="shortOf = null" />
    <Dialog
      :show="conflict !== null"
      title="Somebody else was first"
      width="520px"
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
    </Dialog>
  </div>
  <p v-else class="lost quiet">Counting the plates…</p>
</template>

<style scoped>
.service {
  display: grid;
  height: 100%;
  grid-template: 'head head' auto 'left right' 1fr / 336px minmax(0, 1fr);
}
.head {
  grid-area: head;
}
.buttons {
  display: flex;
  flex-wrap: wrap;
  gap: 8px;
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
}
</style>
