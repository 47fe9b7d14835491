<script setup lang="ts">
/** More of one line: for whom without what, in which vessel, at which sitting. */
import { NButton, NSelect } from 'naive-ui'
import { computed } from 'vue'
import NumberField from '@/parts/NumberField.vue'
import { found } from '@/parts/options'
import { useSession } from '@/shell/session'
import { newLineId, type Loose, type ServiceDraft } from './service'

const props = defineProps<{ service: ServiceDraft; number: number }>()
const emit = defineEmits<{ gone: [] }>()
const session = useSession()
const line = computed(() => props.service.doc.value.lines[props.number] as Loose)
const groups = { diet: 'Diets', allergen: 'Allergens', kind: 'Kinds' } as const
const words = computed(() => [
  ...Object.entries(groups).map(([group, label]) => ({
    type: 'group',
    label,
    key: group,
    children: (session.catalogue?.guests ?? [])
      .filter((word) => word.group === group)
      .map((word) => ({ value: word.key, label: word.key === word.name ? word.key : `${word.key}: ${word.name}` })),
  })),
  {
    type: 'group',
    label: 'One ingredient',
    key: 'ingredient',
    children: [...session.ingredients.values()].map((row) => ({
      value: row.key,
      label: row.name,
      aliases: row.aliases.join(' '),
    })),
  },
])
const set = (change: (line: Loose) => void, tag = '') =>
  props.service.edit((doc) => change(doc.lines[props.number]), tag && `${props.number}.${tag}`)
const oneMore = (id: number) =>
  props.service.edit((doc) => doc.lines.splice(props.number + 1, 0, { ...doc.lines[props.number], id }))
const swaps = computed(() => Object.entries((line.value.swaps ?? {}) as Record<string, string>))
const name = (key: string) => session.ingredients.get(key)?.name ?? key
const vessels = computed(() => session.pans.filter((pan) => !pan.for_pots || pan.shape === 'bowl'))
const vesselOptions = computed(() => [
  { value: '', label: 'as the dish says' },
  ...vessels.value.map((pan) => ({ value: pan.name, label: pan.name })),
])
function takeVessel(chosen: string): void {
  const pan = vessels.value.find((one) => one.name === chosen)
  void set((l) => {
    if (!pan) delete l.vessel
    else {
      const { name, shape, diameter_cm, depth_cm, width_cm } = pan
      l.vessel = { name, shape, diameter_cm, depth_cm, portions: l.vessel?.portions ?? 1 }
      if (width_cm) l.vessel.width_cm = width_cm
    }
  })
}
</script>

<template>
  <div class="more">
    <label
      ><span class="label">Guests who go without</span
      ><NSelect
        multiple
        filterable
        :filter="found"
        :value="line.without ?? []"
        :options="words"
        :aria-label="`Without, line ${number + 1}`"
        @update:value="(v: string[]) => set((l) => (l.without = v))"
    /></label>
    <p v-for="[old, put] in swaps" :key="old" class="swap">
      {{ name(put) }} in place of {{ name(old) }}
      <NButton
        size="small"
        quaternary
        :aria-label="`Put ${name(old)} back`"
        @click="set((l) => void delete l.swaps[old])"
        >×</NButton
      >
    </p>
    <div class="row">
      <label class="vessel"
        ><span class="label">Filled in</span
        ><NSelect
          :value="line.vessel?.name ?? ''"
          :options="vesselOptions"
          :aria-label="`Vessel, line ${number + 1}`"
          @update:value="takeVessel"
      /></label>
      <NumberField
        v-if="line.vessel"
        :value="line.vessel.portions"
        label="portions in one"
        :problem="service.problemAt(`lines[${number}].vessel`)"
        @change="set((l) => (l.vessel.portions = $event), 'vessel')"
      />
    </div>
    <div class="row">
      <NButton @click="set((l) => (l.sitting = line.sitting === 2 ? 1 : 2))">{{
        line.sitting === 2 ? 'First sitting' : 'Second sitting'
      }}</NButton>
      <NButton @click="oneMore(newLineId())">Once more</NButton>
      <NButton @click="(service.edit((doc) => doc.lines.splice(number, 1)), emit('gone'))">Take off</NButton>
    </div>
  </div>
</template>

<style scoped>
.more {
  display: flex;
  flex-direction: column;
  gap: 8px;
  padding: 6px 6px 8px 0;
}
.row {
  display: flex;
  flex-wrap: wrap;
  align-items: end;
  gap: 8px;
}
.vessel {
  flex: 1 1 150px;
  min-width: 0;
}
.swap {
  font-weight: 600;
}
</style>
