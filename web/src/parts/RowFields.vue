<script setup lang="ts">
/** One line of a list in a document: its fields side by side, and a way to take it out. */
import { NButton, type SelectOption } from 'naive-ui'
import ChoiceField from './ChoiceField.vue'
import TextField from './TextField.vue'
import { degrees, shownDegrees, toCelsius } from './ways'

export interface RowField {
  key: string
  label: string
  /** What it is called where the label alone would not tell. */
  name: string
  /** One of these, rather than something to type. */
  options?: SelectOption[]
  filterable?: boolean
  /** Words rather than a number. */
  words?: boolean
  /** Degrees: typed and shown as the kitchen reads them. */
  warm?: boolean
  /** What counts while nothing is there. */
  usual?: string
}
const props = defineProps<{
  fields: RowField[]
  row: Record<string, unknown>
  /** Counted from 1, where there are several. */
  number?: number
  /** Names the button that takes it out; without it there is none. */
  remove?: string
}>()
const emit = defineEmits<{ change: [key: string, value: string]; remove: [] }>()
const named = (name: string) => (props.number === undefined ? name : `${name} ${props.number}`)
</script>

<template>
  <div class="row">
    <template v-for="field in fields" :key="field.key">
      <ChoiceField
        v-if="field.options"
        class="grow"
        :value="(row[field.key] as string | undefined) ?? field.usual"
        :label="field.label"
        :name="named(field.name)"
        :options="field.options"
        :filterable="field.filterable"
        @change="emit('change', field.key, $event)"
      />
      <TextField
        v-else
        :class="{ grow: field.words }"
        :value="field.warm ? shownDegrees(row[field.key]) : row[field.key]"
        :label="field.warm ? `${field.label}, ${degrees()}` : field.label"
        :name="named(field.name)"
        :numeric="!field.words"
        :placeholder="field.warm ? String(shownDegrees(field.usual) ?? '') : field.usual"
        @change="emit('change', field.key, field.warm ? toCelsius($event) : $event)"
      />
    </template>
    <NButton v-if="remove" quaternary :aria-label="named(remove)" @click="emit('remove')">×</NButton>
  </div>
</template>

<style scoped>
.row {
  display: flex;
  flex: 1 1 100%;
  flex-wrap: wrap;
  gap: 8px;
  align-items: end;
}
.row > :deep(label) {
  flex: 0 1 92px;
}
.row > :deep(.grow) {
  flex: 1 1 120px;
  min-width: 0;
}
</style>
