<script setup lang="ts">
/** The settings of a step: choices, switches and numbers. */
import { NSelect, NSwitch } from 'naive-ui'
import type { Problem } from '@/api/client'
import NumberField from '@/parts/NumberField.vue'
import type { LooseSheet } from './draft'
import { formOf, type Knob } from '@/parts/steps'

const props = defineProps<{
  step: LooseSheet
  knobs: Knob[]
  /** Seconds the step takes as it stands. */
  seconds?: number | null
  problemOf: (field: string) => Problem | null
}>()
const emit = defineEmits<{ change: [write: (step: LooseSheet) => void, tag: string] }>()

/** Percent as typed to the share the sheet holds; what is no number goes on as typed. */
function share(text: string): number | string {
  const value = Number(text.trim().replace(',', '.'))
  return text.trim() && Number.isFinite(value) ? value / 100 : text
}
const shown = ({ key, kind }: Knob) => {
  const value = props.step[key]
  return kind === 'percent' && typeof value === 'number' ? value * 100 : value
}
function typed(knob: Knob, text: string): void {
  const empty = text.trim() === ''
  const value = empty ? null : knob.kind === 'percent' ? share(text) : text
  emit('change', (step) => (step[knob.key] = value), knob.key)
}
const pick = (knob: Knob, value: unknown) => emit('change', (step) => (step[knob.key] = value), '')
/** A switch that is on while the entry is not there. */
const setAbsent = (knob: Knob, absent: boolean) => pick(knob, absent ? null : formOf(props.step.op).fresh()[knob.key])
/** What counts where nothing is given: food back in takes its minutes from how it comes. */
function usual(knob: Knob): string | undefined {
  const counts = props.step.op === 'return' && knob.key === 'minutes' && props.seconds
  return counts ? String(Math.round(props.seconds! / 6) / 10) : undefined
}
</script>

<template>
  <div class="knobs">
    <template v-for="knob in knobs" :key="knob.key">
      <label v-if="knob.kind === 'choice'" class="select">
        <span class="label">{{ knob.label.toLowerCase() }}</span>
        <NSelect
          :value="step[knob.key] ?? knob.options![0]!.value"
          :options="knob.options"
          :aria-label="knob.label"
          @update:value="pick(knob, $event)"
        />
      </label>
      <label v-else-if="knob.kind === 'absent'" class="switch">
        <NSwitch :value="step[knob.key] == null" :aria-label="knob.label" @update:value="setAbsent(knob, $event)" />
        {{ knob.label }}
      </label>
      <label v-else-if="knob.kind === 'switch'" class="switch">
        <NSwitch :value="Boolean(step[knob.key])" :aria-label="knob.label" @update:value="pick(knob, $event)" />
        {{ knob.label }}
      </label>
      <NumberField
        v-else
        :bare="knob.bare"
        :value="shown(knob)"
        :label="knob.label"
        :unit="knob.unit"
        :placeholder="usual(knob)"
        :problem="problemOf(knob.key)"
        @change="typed(knob, $event)"
      />
    </template>
  </div>
</template>

<style scoped>
.knobs {
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
.switch {
  display: flex;
  align-items: center;
  gap: 8px;
  min-height: 44px;
}
</style>
