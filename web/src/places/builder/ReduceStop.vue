<script setup lang="ts">
/** Where a reduction stops, and what is passed on the way down in this pan. */
import { NButton, NSelect } from 'naive-ui'
import { computed } from 'vue'
import type { Problem, Schemas } from '@/api/client'
import AmountField from '@/parts/AmountField.vue'
import { grams, minutes } from '@/parts/format'
import NumberField from '@/parts/NumberField.vue'
import { useSession } from '@/shell/session'
import type { LooseSheet } from './draft'
import { stops } from './steps'

const props = defineProps<{
  step: LooseSheet
  state?: Schemas['StateOut']
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
const isGrade = (key: string) => session.grades.some((grade) => grade.key === key)
/** What is passed on the way down; `behind`: before this step stops. */
const way = computed(() => {
  const end = props.state?.total_g ?? 0
  return (props.along?.marks ?? []).map((mark) => ({ mark, behind: mark.mass_g > end + 0.5 }))
})
const eye = computed(() => {
  const { eye_low: low, eye_high: high } = props.along ?? {}
  if (low == null || high == null) return ''
  return `Stopped by ${kind.value === 'taste' ? 'taste' : 'eye'} it ends anywhere from ${Math.round(100 * low)} to ${Math.round(100 * high)} %: weigh it, dip a skewer, or stop at a grade.`
})
const words: Record<string, string> = { rich: 'gets rich', oily: 'turns oily', split: 'splits' }
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
      <NSelect :value="step.to.grade" :options="grades" aria-label="Until it is" @update:value="(v: string) => emit('stop', { grade: v }, '')" />
      <span v-if="problem" class="problem" role="alert">{{ problem.message }}. {{ problem.remedy }}.</span>
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
    <p v-if="eye" class="eye">{{ eye }}</p>
    <table v-if="way.length" class="way">
      <caption>On the way down in this pan</caption>
      <thead>
        <tr><th scope="col">it</th><th scope="col" class="n">weighs</th><th scope="col" class="n">deep</th><th scope="col" class="n">after</th><th scope="col" class="n">salt</th><th /></tr>
      </thead>
      <tbody>
        <tr v-for="{ mark, behind } in way" :key="mark.name" :class="[mark.key, { behind }]">
          <th scope="row">{{ isGrade(mark.key) ? `is ${mark.name}` : mark.key === 'strong' ? `is ${mark.name}` : words[mark.key] }}</th>
          <td class="n"><b>{{ grams(mark.scale_g ?? mark.mass_g) }}</b></td>
          <td class="n">{{ Math.round(mark.level_mm) }} mm</td>
          <td class="n">{{ minutes(mark.minutes) }}</td>
          <td class="n">{{ mark.salt_pct.toFixed(2) }} %</td>
          <td class="take">
            <NButton v-if="isGrade(mark.key) && step.to?.grade !== mark.key" size="small" :aria-label="`Stop at ${mark.name}`" @click.stop="emit('stop', { grade: mark.key }, '')">Stop here</NButton>
            <span v-else-if="isGrade(mark.key)" class="quiet">stops here</span>
          </td>
        </tr>
      </tbody>
    </table>
    <p v-if="way.length" class="quiet small">Weights {{ way[0]!.mark.scale_g === null ? 'without the pan' : 'with the pan' }}. Dim: passed before this step stops.</p>
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
  padding: 4px 10px;
  border-left: 4px solid var(--butter);
  background: var(--butter-wash);
  font-size: 15px;
}
.way {
  width: 100%;
  border-collapse: collapse;
  font-size: 16px;
}
.way caption {
  padding: 6px 0 2px;
  text-align: left;
  font-weight: 700;
}
.way thead th {
  font-weight: 400;
  font-size: 14px;
  color: var(--ink2);
}
.way th {
  text-align: left;
  font-weight: 600;
}
.way td,
.way th {
  padding: 3px 8px 3px 0;
  border-bottom: 1px solid var(--fog2);
}
.way .n {
  text-align: right;
  white-space: nowrap;
}
.rich th,
.oily th,
.split th {
  color: var(--russet);
}
.behind {
  opacity: 0.62;
}
.small {
  font-size: 14px;
}
@media (max-width: 700px) {
  .way thead {
    display: none;
  }
  .way tr {
    display: grid;
    grid-template-columns: 1fr auto auto;
    align-items: baseline;
    gap: 0 10px;
    padding: 4px 0;
    border-bottom: 1px solid var(--fog2);
  }
  .way td,
  .way th {
    border: 0;
    padding: 0;
  }
  .way .n:nth-child(n + 3) {
    order: 2;
    text-align: left;
    color: var(--ink2);
  }
  .way .n:nth-child(5)::before {
    content: 'salt ';
  }
}
</style>
