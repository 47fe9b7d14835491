<script setup lang="ts">
/** Top of a service: its name, day and times, undo, save, and what can be taken out of it. */
import { NButton, NDropdown } from 'naive-ui'
import { computed } from 'vue'
import ProblemLine from '@/parts/ProblemLine.vue'
import type { ServiceDraft } from './service'

const props = defineProps<{ service: ServiceDraft; saving: boolean }>()
const emit = defineEmits<{ save: []; take: [form: string] }>()
const { doc, trouble, dirty, past, future } = props.service
const times = computed(() => ((doc.value.serve_at ?? []) as string[]).join(', '))
function setTimes(text: string): void {
  void props.service.edit((d) => (d.serve_at = text.split(/[,;\s]+/).filter(Boolean)), 'times')
}
const more = [
  { key: 'sheet', label: 'Print the production sheet (A4)' },
  { key: 'csv', label: 'Production sheet as CSV' },
  { key: 'json', label: 'Everything as JSON' },
]
const subjects = { name: 'name', date: 'date', serve_at: 'serve_at', pans: 'Your pans' }
</script>

<template>
  <header>
    <h1 class="unseen">{{ doc.name || 'A service' }}</h1>
    <input
      class="title"
      :value="doc.name"
      maxlength="120"
      aria-label="Name of the service"
      @input="service.edit((d) => (d.name = ($event.target as HTMLInputElement).value), 'name')"
    />
    <label
      ><span class="label">day</span
      ><input
        type="date"
        :value="doc.date ?? ''"
        aria-label="Day"
        @change="service.edit((d) => (d.date = ($event.target as HTMLInputElement).value || null))"
    /></label>
    <label
      ><span class="label">served at</span
      ><input
        class="times"
        :value="times"
        placeholder="12:00, 13:15"
        aria-label="Served at"
        @change="setTimes(($event.target as HTMLInputElement).value)"
    /></label>
    <label
      class="weekly"
      :title="doc.date ? 'Planned again by itself for the same weekday once its day is over' : 'Give it a day first'"
      ><input
        type="checkbox"
        :disabled="!doc.date"
        :checked="doc.repeats === 'weekly'"
        @change="service.edit((d) => (d.repeats = ($event.target as HTMLInputElement).checked ? 'weekly' : 'never'))"
      />
      every week</label
    >
    <div class="buttons">
      <NButton :disabled="!past.length" aria-label="Undo" title="Undo (Ctrl Z)" @click="service.undo">↶</NButton>
      <NButton :disabled="!future.length" aria-label="Redo" title="Redo (Ctrl Shift Z)" @click="service.redo"
        >↷</NButton
      >
      <NDropdown trigger="click" :options="more" @select="(key: string) => emit('take', key)"
        ><NButton>Print, CSV</NButton></NDropdown
      >
      <NButton @click="emit('take', 'run-up')">Run-up</NButton>
      <NButton type="primary" :loading="saving" :disabled="!dirty" @click="emit('save')">Save</NButton>
    </div>
    <ProblemLine
      v-for="(subject, field) in subjects"
      :key="field"
      :problem="service.problemAt(field)"
      :subject="subject"
    />
    <p v-if="trouble" class="problem" role="alert">{{ trouble }}</p>
  </header>
</template>

<style scoped>
header {
  display: flex;
  flex-wrap: wrap;
  align-items: end;
  gap: 4px 12px;
  padding: 8px 14px;
  border-bottom: 1px solid var(--fog2);
  background: var(--fog0);
}
.title {
  flex: 1 1 220px;
  width: auto;
}
header label input:not([type='checkbox']) {
  min-height: 40px;
  padding: 0 8px;
  border: 1px solid var(--fog3);
  border-radius: 8px;
  background: var(--white);
  font: 600 16px var(--text);
}
.times {
  width: 128px;
}
.weekly {
  display: flex;
  align-items: center;
  gap: 6px;
  min-height: 44px;
}
.weekly input {
  width: 22px;
  height: 22px;
}
.buttons {
  display: flex;
  flex-wrap: wrap;
  gap: 8px;
}
.problem {
  flex: 1 1 100%;
}
</style>
