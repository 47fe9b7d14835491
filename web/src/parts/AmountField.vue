<script setup lang="ts">
/** An amount edited in place: "80", "half a cup" and "about 3 ladles" are all read, by the core. */
import { computed } from 'vue'
import type { Problem } from '@/api/client'
import { amount as spoken, isShare, share } from './format'
import ProblemLine from './ProblemLine.vue'
import { toNext, useTyped } from './typed'

export interface TypedAmount {
  value: number | string
  unit: string
  measure?: { name: string; count: number; spread_pct: number } | null
}

const props = defineProps<{
  /** What was refused is still as it was typed; of another sauce it may be a share. */
  amount: TypedAmount | { share: number } | string
  label: string
  problem?: Problem | null
  big?: boolean
  still?: boolean
}>()
const emit = defineEmits<{ change: [amount: TypedAmount | string] }>()

function written(amount: TypedAmount | { share: number } | string): string {
  if (typeof amount === 'string') return amount
  if (isShare(amount)) return share(amount)
  const { value, unit, measure } = amount
  if (typeof value === 'number') return spoken({ value, unit, measure })
  return /[a-z]/i.test(value) ? value : `${value} ${unit}`
}
const shown = () => written(props.amount)
const { text, typing, settle } = useTyped(shown, () => props.problem)
const size = computed(() => Math.max(7, text.value.length + 1))

/** A bare number is of the unit that stands there: the core reads either. */
function read(): void {
  typing.value = true
  const before = typeof props.amount === 'string' || isShare(props.amount) ? null : props.amount
  const unit = before?.measure?.name ?? before?.unit
  emit('change', unit ? { value: text.value.trim(), unit } : text.value)
}
</script>

<template>
  <span class="amount" :class="{ wrong: problem, big, still }">
    <input
      v-model="text"
      :aria-label="label"
      :aria-invalid="Boolean(problem)"
      :size="size"
      inputmode="text"
      autocomplete="off"
      spellcheck="false"
      data-amount
      @input="read"
      @blur="settle"
      @focus="($event.target as HTMLInputElement).select()"
      @keydown.enter="toNext"
    />
    <ProblemLine :problem="problem" />
  </span>
</template>

<style scoped>
.amount {
  max-width: 100%;
  display: inline-flex;
  flex-direction: column;
  gap: 2px;
}
input {
  min-height: 44px;
  width: 100%;
  padding: 2px 8px;
  border: 1px solid transparent;
  border-bottom: 2px solid var(--fog3);
  border-radius: 6px 6px 0 0;
  background: transparent;
  color: var(--ink);
  font: 700 22px/1.2 var(--text);
  font-variant-numeric: tabular-nums;
  text-align: right;
}
.big {
  flex: 1;
  min-width: 0;
}
.big input {
  font-size: 30px;
}
input:hover {
  background: var(--white);
}
input:focus {
  background: var(--white);
  border-color: var(--russet);
  outline: none;
}
.wrong input {
  border-color: var(--danger);
  background: var(--danger-wash);
}
</style>
