<script setup lang="ts">
/** One line to type into under its label, with what is wrong with it. The core reads what was typed. */
import type { Problem } from '@/api/client'
import ProblemLine from './ProblemLine.vue'
import { useTyped } from './typed'

const props = defineProps<{
  value: unknown
  label: string
  /** What it is called where the label alone would not tell. */
  name?: string
  unit?: string
  numeric?: boolean
  placeholder?: string
  problem?: Problem | null
  /** Of a password, what is typed is not shown. */
  type?: 'text' | 'password'
  /** What the browser may fill in by itself: nothing unless it is said. */
  autocomplete?: string
  most?: number
}>()
const emit = defineEmits<{ change: [text: string] }>()
const shown = () => (props.value === null || props.value === undefined ? '' : String(props.value))
const { text, typing, settle } = useTyped(shown, () => props.problem)
</script>

<template>
  <label>
    <span class="label">{{ label }}</span>
    <span class="entry">
      <input
        v-model="text"
        class="box"
        :class="{ numeric }"
        :inputmode="numeric ? 'decimal' : undefined"
        :aria-label="name ?? label"
        :aria-invalid="Boolean(problem)"
        :placeholder="placeholder"
        :type="type ?? 'text'"
        :maxlength="most"
        :autocomplete="autocomplete ?? 'off'"
        @input="((typing = true), emit('change', text))"
        @blur="settle"
        @keydown.enter="typing = false"
      />
      <template v-if="unit">{{ unit }}</template>
    </span>
    <slot />
    <ProblemLine :problem="problem" />
  </label>
</template>

<style scoped>
.entry {
  display: flex;
  align-items: baseline;
  gap: 6px;
  white-space: nowrap;
}
.box {
  min-width: 0;
}
.numeric {
  text-align: right;
}
</style>
