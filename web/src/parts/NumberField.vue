<script setup lang="ts">
/** A plain number with its unit, sent as typed; the core says what is wrong with it. */
import { computed } from 'vue'
import type { Problem } from '@/api/client'
import { number } from './format'
import ProblemLine from './ProblemLine.vue'
import { toNext, useTyped } from './typed'
import { degrees, shownDegrees, toCelsius } from './ways'

const props = defineProps<{
  value: number | string | null | undefined
  unit?: string
  label: string
  problem?: Problem | null
  bare?: boolean
  /** What counts while nothing is typed. */
  placeholder?: string
}>()
const emit = defineEmits<{ change: [text: string] }>()

/** Degrees are typed and shown as the kitchen reads them; what is sent is °C. */
const isDegrees = computed(() => props.unit === '°C')
const shownUnit = computed(() => (isDegrees.value ? degrees() : props.unit))
function shown(): string {
  const value = (isDegrees.value ? shownDegrees(props.value) : props.value) as typeof props.value
  return typeof value === 'number' ? number(value) : (value ?? '')
}
const sent = (typed: string) => (isDegrees.value ? toCelsius(typed) : typed)
const { text, typing, settle } = useTyped(shown, () => props.problem)
</script>

<template>
  <label class="number" :class="{ wrong: problem }">
    <span v-if="!bare" class="label">{{ label }}</span>
    <span class="row">
      <input
        v-model="text"
        :aria-label="label"
        :aria-invalid="Boolean(problem)"
        :placeholder="isDegrees ? String(shownDegrees(placeholder) ?? '') : placeholder"
        inputmode="decimal"
        autocomplete="off"
        data-amount
        @input="((typing = true), emit('change', sent(text)))"
        @blur="settle"
        @focus="($event.target as HTMLInputElement).select()"
        @keydown.enter="toNext"
      />
      <span v-if="shownUnit" class="unit">{{ shownUnit }}</span>
    </span>
    <ProblemLine :problem="problem" />
  </label>
</template>

<style scoped>
.number {
  display: flex;
  flex-direction: column;
  min-width: 0;
}
.row {
  display: flex;
  align-items: baseline;
  gap: 6px;
}
input {
  width: 84px;
  min-height: 44px;
  padding: 2px 8px;
  border: 1px solid var(--fog3);
  border-radius: 8px;
  background: var(--white);
  color: var(--ink);
  font: 700 20px var(--text);
  text-align: right;
}
input:focus {
  border-color: var(--russet);
  outline: none;
  box-shadow: 0 0 0 2px var(--russet-wash);
}
.wrong input {
  border-color: var(--danger);
  background: var(--danger-wash);
}
.unit {
  color: var(--ink2);
}
</style>
