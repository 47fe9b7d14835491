<script setup lang="ts">
/** A dish made while it is seen: its parts left, its picture in the middle with the part that was pressed
 * under it, what a portion comes to right. */
import { useTitle } from '@vueuse/core'
import { NButton, NPopover, useMessage } from 'naive-ui'
import { computed, onMounted, ref } from 'vue'
import { useRoute, useRouter } from 'vue-router'
import { api, ask, type Schemas } from '@/api/client'
import ChoiceField from '@/parts/ChoiceField.vue'
import ProblemLine from '@/parts/ProblemLine.vue'
import { spokenField } from '@/shell/form'
import { onEditKeys } from '@/shell/keys'
import { useSession } from '@/shell/session'
import { NEW_DISH, pulled, useDish } from './dish'
import Tonight from '../run-up/Tonight.vue'
import DishFigures from './DishFigures.vue'
import DishParts from './DishParts.vue'
import PartFields from './PartFields.vue'
import PlatePicture from './PlatePicture.vue'
import SectionPicture from './SectionPicture.vue'
import SlicesPicture from './SlicesPicture.vue'

/** The number of a kept dish; null: a new one, from the kind of dish `start`. */
const props = defineProps<{ id: number | null; start: string }>()
const route = useRoute()
const router = useRouter()
const session = useSession()
const message = useMessage()
const dish = useDish()
const { typed, found, problems, trouble, conflict, restored, dirty, past, future } = dish
const sauces = ref<Schemas['SauceName'][]>([])
const lost = ref('')
const tried = ref(false)
const chosen = ref<string | null>(null)
const saving = ref(false)
/** Where it is wanted: a service to go back to. */
const service = computed(() => Number(route.query.service) || null)
useTitle(computed(() => `${typed.value.name || 'A dish'} · Kestrel Fog`))

onMounted(async () => {
  try {
    sauces.value = await ask(api.GET('/api/sauces/names'))
    if (props.id !== null) await dish.open(props.id)
    else {
      const starts = props.start ? await ask(api.GET('/api/dishes/starts')) : []
      const first = starts.find((one) => one.key === props.start)?.document
      await dish.start(first ?? NEW_DISH, Boolean(first))
    }
  } catch (error) {
    lost.value = (error as Error).message
  }
})
const seen = computed(() => found.value?.seen ?? null)
const picture = computed(() =>
  !seen.value ? null : ({ section: SectionPicture, plate: PlatePicture }[seen.value.picture] ?? SlicesPicture),
)
const kinds = computed(() =>
  Object.entries(session.catalogue?.dish_kinds ?? {}).map(([value, label]) => ({ value, label })),
)
const usual = (use: string) => session.uses.find((one) => one.key === use)?.per_ml ?? 1
const pull = (part: string, ratio: number) => dish.edit((doc) => pulled(doc, part, ratio, usual), `pull.${part}`)
const salt = (pct: number) =>
  dish.edit((doc) => doc.sauces.forEach((used: Record<string, unknown>) => (used.salt_pct = pct)))
const nameProblem = computed(() => (tried.value || typed.value.name ? dish.problemAt('name') : null))
const shown = ['name', 'sauces', 'solids', 'vessel', 'toppings', 'rounds']
const other = computed(() => problems.value.filter((p) => !shown.some((field) => p.field.startsWith(field))))
const elsewhere = computed(() =>
  problems.value.filter((p) => p.field !== 'name' && !(chosen.value && p.field.startsWith(chosen.value))),
)

async function save(over = false): Promise<void> {
  tried.value = true
  saving.value = true
  const kept = await dish.save(over)
  saving.value = false
  if (!kept) {
    if (problems.value.length) message.warning('Not kept: mend the entry marked first.')
    return
  }
  message.success(`“${typed.value.name}” is kept.`)
  if (service.value) await router.push({ path: `/service/${service.value}`, query: { add: String(kept.id) } })
  else if (props.id === null) await router.replace(`/dishes/${kept.id}`)
}
async function startOver(): Promise<void> {
  await dish.discard()
  if (props.id === null) await dish.start(NEW_DISH, true)
  chosen.value = null
}
onEditKeys({ save: () => void save(), undo: dish.undo, redo: dish.redo })
</script>

<template>
  <div v-if="lost" class="lost">
    <h1>This dish cannot be opened</h1>
    <p>{{ lost }}</p>
    <NButton @click="router.push('/dishes')">Back to the dishes</NButton>
  </div>
  <p v-else-if="!typed.format" class="lost quiet">Laying the plate…</p>
  <form v-else class="dish" @submit.prevent="save()">
    <header>
      <h1 class="unseen">{{ typed.name || 'A dish' }}</h1>
      <input
        class="title"
        :value="typed.name"
        maxlength="120"
        placeholder="What is it called?"
        aria-label="Dish name"
        @input="dish.edit((doc) => (doc.name = ($event.target as HTMLInputElement).value), 'name')"
      />
      <ChoiceField
        class="kind"
        :value="typed.kind ?? seen?.kind"
        label="kind"
        name="Kind of dish"
        :options="kinds"
        @change="dish.edit((doc) => (doc.kind = $event))"
      />
      <div class="buttons">
        <NButton :disabled="!past.length" aria-label="Undo" title="Undo (Ctrl Z)" @click="dish.undo">↶</NButton>
        <NButton :disabled="!future.length" aria-label="Redo" title="Redo (Ctrl Shift Z)" @click="dish.redo">↷</NButton>
        <NPopover v-if="id !== null && !dirty" trigger="click" placement="bottom-end">
          <template #trigger><NButton>Tonight</NButton></template>
          <Tonight :dish="id" />
        </NPopover>
        <template v-if="conflict">
          <NButton @click="save(true)">Put mine in its place</NButton>
          <NButton type="primary" @click="dish.takeTheirs()">Take theirs</NButton>
        </template>
        <NButton v-else type="primary" attr-type="submit" :loading="saving" :disabled="id !== null && !dirty">{{
          service ? 'Keep and serve it' : 'Keep the dish'
        }}</NButton>
      </div>
      <ProblemLine :problem="nameProblem" subject="The name" />
      <p v-if="conflict" class="problem" role="alert">{{ conflict.message }}</p>
      <p v-if="trouble" class="problem" role="alert">{{ trouble }}</p>
      <p v-if="restored" class="quiet">
        What was typed here and not kept was brought back.
        <NButton size="small" @click="startOver">{{ id === null ? 'Start over' : 'Drop it' }}</NButton>
      </p>
    </header>
    <DishParts class="left" :dish="dish" :sauces="sauces" :chosen="chosen" @choose="chosen = $event" />
    <div class="plate">
      <component
        :is="picture"
        v-if="seen && picture"
        :seen="seen"
        :chosen="chosen"
        @choose="chosen = $event"
        @pull="pull"
      />
      <p v-if="elsewhere.length" class="warning" role="status">
        The picture is from before: {{ spokenField(elsewhere[0]!.field) }} {{ elsewhere[0]!.message }}.
        {{ elsewhere[0]!.remedy }}.
      </p>
      <PartFields v-if="chosen" :key="chosen" :dish="dish" :part="chosen" :sauces="sauces" @gone="chosen = null" />
      <p v-else class="quiet">Press a part, here or in the list, to change it; pull an edge to make it more or less.</p>
      <ProblemLine v-for="p in other" :key="p.field" :problem="p" :subject="`${p.field}:`" />
    </div>
    <DishFigures v-if="seen" class="right" :seen="seen" @salt="salt" />
  </form>
</template>

<style scoped>
.dish {
  display: grid;
  height: 100%;
  grid-template: 'head head head' auto 'left main right' 1fr / 250px minmax(0, 1fr) 300px;
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
.title {
  flex: 1 1 240px;
  width: auto;
}
.kind {
  width: 180px;
}
.buttons {
  display: flex;
  flex-wrap: wrap;
  gap: 8px;
}
header .problem {
  flex: 1 1 100%;
}
.left,
.right,
.plate {
  overflow: auto;
  padding: 12px;
}
.left {
  border-right: 1px solid var(--fog2);
}
.right {
  border-left: 1px solid var(--fog2);
}
.plate {
  display: flex;
  flex-direction: column;
  gap: 12px;
}
.lost {
  padding: 32px;
}
@media (max-width: 900px) {
  .dish {
    display: flex;
    flex-direction: column;
    height: auto;
  }
  .left,
  .right {
    border: 0;
  }
  .left {
    order: 1;
  }
}
</style>
