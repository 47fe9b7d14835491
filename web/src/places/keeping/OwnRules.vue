<script setup lang="ts">
/** A kitchen's own rule set for cooling, holding and heating again, from the one it goes by. */
import { NButton } from 'naive-ui'
import { computed, ref, watch } from 'vue'
import { api, ask, Refused, type Problem, type Schemas } from '@/api/client'
import Dialog from '@/parts/Dialog.vue'
import NumberField from '@/parts/NumberField.vue'
import ProblemLine from '@/parts/ProblemLine.vue'
import TextField from '@/parts/TextField.vue'

const props = defineProps<{ from: Schemas['Rules'] }>()
const show = defineModel<boolean>('show', { required: true })
const emit = defineEmits<{ kept: [] }>()
type Figure = 'from_c' | 'hot_c' | 'reheat_c' | 'reheat_minutes' | 'reheat_hold_minutes' | 'chilled_c' | 'chilled_days'
const figures: { key: Figure; label: string; unit: string }[] = [
  { key: 'hot_c', label: 'kept hot at or above', unit: '°C' },
  { key: 'reheat_c', label: 'heated again to, in the middle', unit: '°C' },
  { key: 'reheat_minutes', label: 'within', unit: 'min' },
  { key: 'reheat_hold_minutes', label: 'held there for', unit: 'min' },
  { key: 'chilled_c', label: 'kept cold at or below', unit: '°C' },
  { key: 'chilled_days', label: 'for at most', unit: 'days' },
]
const name = ref('')
const typed = ref({} as Record<Figure, string>)
const stages = ref<{ to_c: string; minutes: string }[]>([])
const problems = ref<Problem[]>([])
const busy = ref(false)
watch(
  show,
  (open) => {
    if (!open) return
    const { from } = props
    name.value = from.key === 'own' ? from.name : 'Our own'
    typed.value = Object.fromEntries(
      ['from_c', ...figures.map((one) => one.key)].map((key) => [key, String(from[key as Figure])]),
    ) as Record<Figure, string>
    stages.value = from.stages.map((one) => ({ to_c: String(one.to_c), minutes: String(one.minutes) }))
    problems.value = []
  },
  { immediate: true },
)
/** As typed where it is no number: the server says what would be right. */
const sent = (text: string) => {
  const number = Number(text.trim().replace(',', '.'))
  return text.trim() && Number.isFinite(number) ? number : text
}
async function keep(): Promise<void> {
  busy.value = true
  problems.value = []
  try {
    const rules = {
      name: name.value,
      ...Object.fromEntries(Object.entries(typed.value).map(([key, text]) => [key, sent(text)])),
      stages: stages.value.map((one) => ({ to_c: sent(one.to_c), minutes: sent(one.minutes) })),
    }
    await ask(api.PUT('/api/keeping/rules', { body: { rules } }))
    show.value = false
    emit('kept')
  } catch (error) {
    if (error instanceof Refused) problems.value = error.problems
    else problems.value = [{ field: '', message: (error as Error).message, remedy: 'Try again', code: '' } as Problem]
  } finally {
    busy.value = false
  }
}
const at = (field: string) => problems.value.find((one) => one.field === field) ?? null
const known = computed(() => new Set([...figures.map((one) => one.key as string), 'from_c', 'name']))
const other = computed(
  () => problems.value.find((one) => !known.value.has(one.field) && !/^stages\[\d\]\.\w+$/.test(one.field)) ?? null,
)
</script>

<template>
  <Dialog v-model:show="show" title="Rules of your own" width="640px">
    <form @submit.prevent="keep">
      <TextField label="What you call them" :value="name" :problem="at('name')" @change="name = $event" />
      <fieldset>
        <legend>Cooling</legend>
        <NumberField
          label="the clock begins at"
          unit="°C"
          :value="typed.from_c"
          :problem="at('from_c')"
          @change="typed.from_c = $event"
        />
        <div v-for="(stage, n) in stages" :key="n" class="stage">
          <NumberField
            label="down to"
            unit="°C"
            :value="stage.to_c"
            :problem="at(`stages[${n}].to_c`)"
            @change="stage.to_c = $event"
          />
          <NumberField
            label="within"
            unit="min"
            :value="stage.minutes"
            :problem="at(`stages[${n}].minutes`)"
            @change="stage.minutes = $event"
          />
          <NButton
            v-if="stages.length > 1"
            quaternary
            :aria-label="`Without stage ${n + 1}`"
            @click="stages.splice(n, 1)"
            >×</NButton
          >
        </div>
        <NButton v-if="stages.length < 4" size="small" @click="stages.push({ to_c: '', minutes: '' })"
          >One more stage</NButton
        >
      </fieldset>
      <div class="figures">
        <NumberField
          v-for="one in figures"
          :key="one.key"
          :label="one.label"
          :unit="one.unit"
          :value="typed[one.key]"
          :problem="at(one.key)"
          @change="typed[one.key] = $event"
        />
      </div>
      <ProblemLine :problem="other" />
      <p class="quiet">Local rules and your own plan come first. What was put away before keeps the rules it had.</p>
      <NButton type="primary" size="large" attr-type="submit" :loading="busy">Go by these</NButton>
    </form>
  </Dialog>
</template>

<style scoped>
form {
  display: flex;
  flex-direction: column;
  gap: 12px;
}
fieldset,
.stage,
.figures {
  display: flex;
  flex-wrap: wrap;
  align-items: end;
  gap: 8px 18px;
}
.stage {
  flex-basis: 100%;
}
</style>
