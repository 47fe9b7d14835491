<script setup lang="ts">
/** Where a reduction stops. */
import { NSelect } from 'naive-ui'
import { computed } from 'vue'
import type { Problem, Schemas } from '@/api/client'
import AmountField from '@/parts/AmountField.vue'
import NumberField from '@/parts/NumberField.vue'
import WayDown from '@/parts/WayDown.vue'
import { useSession } from '@/shell/session'
import type { LooseSheet } from './draft'
import { stops } from '@/parts/steps'
import ProblemLine from '@/parts/ProblemLine.vue'

const props = defineProps<{
  step: LooseSheet
  state?: Schemas['Figures']
  along?: Schemas['Along']
  problem: Problem | null
  chosen: boolean
}>()
const emit = defineEmits<{ stop: [to: unknown, tag: string] }>()
const session = useSession()

const kind = computed(() => {
  const to = props.step.to
  if (typeof to === 'string') return to === 'to-taste' ? 'taste' : 'nearly-dry'
  return stops.find((stop) => to?.[stop.value] != null)?.value ?? 'share'
})
const grades = computed(() => session.grades.map((grade) => ({ value: grade.key, label: grade.name })))
function begin(next: string): void {
  const state = props.state
  const fresh: Record<string, unknown> = {
    share: { share: 0.7 },
    grade: { grade: 'light-coat' },
    mass: { mass: { value: Math.round(state?.total_g ?? 500), unit: 'g' } },
    volume: { volume: { value: Math.round(state?.total_ml ?? 500), unit: 'mL' } },
    minutes: { minutes: 5 },
    taste: { taste: 0.5 },
    'nearly-dry': 'nearly-dry',
  }
  emit('stop', fresh[next], '')
}
/** Percent as typed to the share the sheet holds; what is no number goes on as typed. */
function share(text: string): number | string {
  const value = Number(text.trim().replace(',', '.'))
  return text.trim() && Number.isFinite(value) ? value / 100 : text
}
const percent = (value: unknown) => (typeof value === 'number' ? value * 100 : (value as string))
const shareOf = computed(() => (kind.value === 'taste' ? (props.step.to?.taste ?? 0.5) : props.step.to?.share))
const eye = computed(() => {
  const { eye_low: low, eye_high: high } = props.along ?? {}
  if (low == null || high == null) return ''
  return `Stopped by ${kind.value === 'taste' ? 'taste' : 'eye'} it ends anywhere from ${Math.round(100 * low)} to ${Math.round(100 * high)} %: weigh it, dip a skewer, or stop at a grade.`
})
</script>

<template>
  <div v-if="chosen || kind !== 'nearly-dry'" class="row">
    <NumberField
      v-if="kind === 'share' || kind === 'taste'"
      :value="percent(shareOf)"
      :label="kind === 'taste' ? 'planned to' : 'boil down to'"
      unit="% of the liquid"
      :problem="problem"
      @change="emit('stop', { [kind]: share($event) }, 'to')"
    />
    <label v-else-if="kind === 'grade'" class="select">
      <span class="label">until it is</span>
      <NSelect
        :value="step.to.grade"
        :options="grades"
        aria-label="Until it is"
        @update:value="(v: string) => emit('stop', { grade: v }, '')"
      />
      <ProblemLine :problem="problem" />
    </label>
    <NumberField
      v-else-if="kind === 'minutes'"
      :value="step.to.minutes"
      label="boil for"
      unit="min"
      :problem="problem"
      @change="emit('stop', { minutes: $event }, 'to')"
    />
    <AmountField
      v-else-if="kind !== 'nearly-dry'"
      :amount="step.to[kind]"
      label="Boil down to"
      :problem="problem"
      @change="emit('stop', { [kind]: $event }, 'to')"
    />
    <label v-if="chosen" class="select">
      <span class="label">stop at</span>
      <NSelect :value="kind" :options="stops" :virtual-scroll="false" aria-label="Stop at" @update:value="begin" />
    </label>
  </div>
  <template v-if="chosen">
    <p v-if="eye" class="eye warning">{{ eye }}</p>
    <WayDown
      v-if="along"
      :along="along"
      :ends-g="state?.total_g"
      :grade="step.to?.grade"
      takes
      @stop="emit('stop', { grade: $event }, '')"
    />
  </template>
</template>

<style scoped>
.row {
  display: flex;
  flex-wrap: wrap;
  align-items: end;
  gap: 10px;
  min-height: 46px;
}
.select {
  flex: 1 1 150px;
  max-width: 220px;
}
.eye {
  font-size: 15px;
}
</style>
