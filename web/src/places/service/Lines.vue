<script setup lang="ts">
/** Left: what is served, how many, for whom without what; what is on hand already. */
import { NButton, NInput, NSelect } from 'naive-ui'
import { computed, ref } from 'vue'
import type { Schemas } from '@/api/client'
import NumberField from '@/parts/NumberField.vue'
import LineMore from './LineMore.vue'
import OnHand from './OnHand.vue'
import { goesWithout, lineKey, newLineId, type Loose, type ServiceDraft } from './service'
import ProblemLine from '@/parts/ProblemLine.vue'

const props = defineProps<{ service: ServiceDraft; dishes: Schemas['DishOut'][]; chosen: string | null }>()
const emit = defineEmits<{ choose: [key: string]; dish: [] }>()
const lines = computed(() => (props.service.doc.value.lines ?? []) as Loose[])
const total = computed(() => lines.value.reduce((sum, line) => sum + (Number(line.portions) || 0), 0))
const options = computed(() => props.dishes.map((d) => ({ value: String(d.id), label: d.name })))
const nameOf = (key: string) => props.dishes.find((d) => String(d.id) === key)?.name ?? 'a dish off the list'
function set(i: number, change: (line: Loose) => void, tag = ''): void {
  void props.service.edit((doc) => change(doc.lines[i]), tag && `${i}.${tag}`)
}
function add(key: string): void {
  const id = newLineId()
  void props.service.edit((doc) => doc.lines.push({ id, dish: key, portions: 10 }))
}
/** All that is wrong with a line: what was refused, else what keeps it from being served. */
const wrongWith = (i: number) => {
  const refused = props.service.refusedAt(`lines[${i}]`)
  const at = `lines[${i}]`
  return refused ? [refused] : (props.service.plan.value?.amiss ?? []).filter((one) => one.field.startsWith(at))
}
const planned = (i: number) => props.service.plan.value?.lines[i]
const covers = ref('')
function scale(): void {
  const typed = covers.value
  void props.service.scale(Number(typed.trim().replace(',', '.')) || 0).then(() => {
    if (covers.value === typed) covers.value = ''
  })
}
const open = ref<number | null>(null)
</script>

<template>
  <section class="lines" aria-label="What is served">
    <ol>
      <li
        v-for="(line, i) in lines"
        :key="i"
        class="sheet"
        :class="{ chosen: chosen === lineKey(i), amiss: service.problemAt(`lines[${i}]`) }"
      >
        <div class="row">
          <NumberField
            bare
            :value="line.portions"
            :label="`Portions of ${nameOf(line.dish)}`"
            :problem="service.problemAt(`lines[${i}].portions`)"
            @change="set(i, (l) => (l.portions = $event), 'portions')"
          />
          <button type="button" class="plain name" @click="emit('choose', lineKey(i))">
            {{ nameOf(line.dish) }}
            <span v-if="line.sitting === 2" class="quiet">second sitting</span>
            <span v-if="line.without?.length" class="without">{{ goesWithout(line.without) }}</span>
            <span v-if="planned(i)?.refused" class="refused">not served yet</span>
          </button>
          <NButton quaternary :aria-label="`More about line ${i + 1}`" @click="open = open === i ? null : i">…</NButton>
        </div>
        <ProblemLine v-for="one in wrongWith(i)" :key="one.field + one.message" :problem="one" />
        <div v-for="offer in planned(i)?.offers ?? []" :key="offer.words" class="offer">
          <span>{{ offer.words }}</span>
          <NButton size="small" type="primary" @click="set(i, (l) => (l.swaps = { ...offer.swaps }))">Use it</NButton>
        </div>
        <p v-if="planned(i)?.refused && !planned(i)?.offers?.length && line.without?.length" class="quiet">
          Nothing in your larder takes its place.
        </p>
        <LineMore v-if="open === i" :service="service" :number="i" @gone="open = null" />
      </li>
    </ol>
    <label>
      <span class="unseen">Add a dish</span>
      <NSelect
        :value="null"
        filterable
        :options="options"
        placeholder="Add a dish…"
        aria-label="Add a dish"
        @update:value="add"
      />
    </label>
    <NButton @click="emit('dish')">A dish that is not there yet</NButton>
    <form v-if="lines.length" class="row" @submit.prevent="scale">
      <span
        ><b class="total">{{ total }}</b> portions in all</span
      >
      <NInput
        v-model:value="covers"
        placeholder="make it…"
        :input-props="{ inputmode: 'numeric', 'aria-label': 'Portions in all' }"
        style="width: 104px"
      />
      <NButton attr-type="submit" :disabled="!covers.trim()">Scale</NButton>
    </form>
    <ProblemLine :problem="service.problemAt('covers')" />
    <OnHand :service="service" />
  </section>
</template>

<style scoped>
.lines {
  display: flex;
  flex-direction: column;
  gap: 10px;
}
ol {
  display: flex;
  flex-direction: column;
  gap: 6px;
  margin: 0;
  padding: 0;
  list-style: none;
}
li {
  padding: 4px 4px 4px 8px;
  border-width: 2px;
}
.chosen {
  border-color: var(--ink2);
}
.amiss {
  border-color: var(--danger);
}
.row {
  display: flex;
  flex-wrap: nowrap;
  align-items: center;
  gap: 8px;
}
.row :deep(input) {
  width: 68px;
}
/* What is wrong stands under the row, in its whole width. */
.row :deep(.problem) {
  display: none;
}
.name {
  flex: 1;
  min-height: 44px;
  min-width: 0;
  font-weight: 700;
  line-height: 1.2;
  text-align: left;
}
.name span {
  display: block;
  font-weight: 400;
  font-size: 14px;
}
.without,
.refused {
  color: var(--russet);
}
.name .refused {
  font-weight: 800;
}
.offer {
  display: flex;
  align-items: center;
  justify-content: space-between;
  gap: 8px;
  padding: 4px 4px 4px 0;
  font-weight: 600;
}
.total {
  font-size: 22px;
}
</style>
