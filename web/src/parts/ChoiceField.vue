<script setup lang="ts">
/** One of several under its label. */
import { NSelect, type SelectOption } from 'naive-ui'
import { found } from './options'

defineProps<{
  value: string | null | undefined
  label: string
  /** What it is called where the label alone would not tell. */
  name?: string
  options: SelectOption[]
  filterable?: boolean
}>()
defineEmits<{ change: [value: string] }>()
</script>

<template>
  <label>
    <span class="label">{{ label }}</span>
    <NSelect
      :value="value"
      :options="options"
      :filterable="filterable"
      :filter="found"
      :virtual-scroll="filterable"
      :aria-label="name ?? label"
      @update:value="$emit('change', $event)"
    />
  </label>
</template>
