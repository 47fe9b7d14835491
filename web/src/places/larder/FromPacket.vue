<script setup lang="ts">
/** A new row from what its packet says, without water or casein: the rest is worked out. */
import { useDebounceFn } from '@vueuse/core'
import { ref, watch } from 'vue'
import { api, ask, Refused } from '@/api/client'
import TextField from '@/parts/TextField.vue'
import { useForm } from '@/shell/form'

const props = defineProps<{ name: string; role: string }>()
const emit = defineEmits<{ row: [row: Record<string, string>] }>()
const { problems, trouble, clear, problemAt } = useForm()

const printed = [
  { key: 'fat', label: 'Fat' },
  { key: 'carbohydrate', label: 'Carbohydrate' },
  { key: 'sugars', label: 'of which sugars' },
  { key: 'protein', label: 'Protein' },
  { key: 'salt', label: 'Salt' },
] as const
const besides = [
  { key: 'fibre', label: 'Fibre', unit: 'g' },
  { key: 'alcohol_vol', label: 'Alcohol', unit: '% vol' },
] as const
const figures = ref<Record<string, string>>({})
const assumed = ref<string[]>([])
const set = (key: string, text: string) => (figures.value = { ...figures.value, [key]: text })

const work = useDebounceFn(async () => {
  // Nothing is asked for while the packet is still being copied.
  if (!props.name.trim() || printed.some(({ key }) => !figures.value[key]?.trim())) return
  try {
    const body = { name: props.name, role: props.role, ...figures.value }
    const found = await ask(api.POST('/api/larder/from-label', { body: body as never }))
    clear()
    assumed.value = found.assumed
    emit('row', found.row)
  } catch (error) {
    assumed.value = []
    if (error instanceof Refused) problems.value = error.problems
    else trouble.value = (error as Error).message
  }
}, 250)
watch([figures, () => props.name, () => props.role], () => void work())
</script>

<template>
  <fieldset>
    <legend>From its packet, in 100 g</legend>
    <TextField
      v-for="f in printed"
      :key="f.key"
      :value="figures[f.key] ?? ''"
      :label="f.label"
      unit="g"
      numeric
      :problem="problemAt(f.key)"
      @change="set(f.key, $event)"
    />
    <TextField
      v-for="f in besides"
      :key="f.key"
      :value="figures[f.key] ?? ''"
      :label="`${f.label}, if told`"
      :unit="f.unit"
      numeric
      :problem="problemAt(f.key)"
      @change="set(f.key, $event)"
    />
    <p v-if="trouble" class="problem wide" role="alert">{{ trouble }}</p>
    <ul v-if="assumed.length" class="wide quiet" aria-live="polite">
      <li v-for="one in assumed" :key="one">{{ one }}</li>
    </ul>
  </fieldset>
</template>

<style scoped>
fieldset {
  display: grid;
  grid-template-columns: repeat(auto-fill, minmax(136px, 1fr));
  align-items: end;
  gap: 4px 14px;
}
.wide {
  grid-column: 1 / -1;
  margin: 4px 0 0;
  padding-left: 18px;
}
</style>
