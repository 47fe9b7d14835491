<script setup lang="ts">
/** Middle of the builder: the steps in order, one of them chosen, and what can be put in next. */
import { NButton, NDropdown, useMessage } from 'naive-ui'
import { computed, nextTick, ref } from 'vue'
import { minutes } from '@/parts/format'
import { onKey } from '@/shell/keys'
import type { Draft, LooseSheet } from './draft'
import PickSauce from './PickSauce.vue'
import StepCard from './StepCard.vue'
import { common, formOf, freshSalt, menu } from '@/parts/steps'

const chosen = defineModel<number | null>('chosen', { required: true })
const props = defineProps<{ draft: Draft }>()
const emit = defineEmits<{ missing: [what: { key: string; name: string }] }>()
const message = useMessage()
const { sheet, worked, stored, changes, past } = props.draft
const picking = ref(false)
const steps = computed(() => (sheet.value.steps ?? []) as LooseSheet[])

const showChosen = () =>
  void nextTick(() => document.querySelector('.step.chosen')?.scrollIntoView({ block: 'nearest' }))
function move(index: number, by: number): void {
  const to = index + by
  void props.draft.edit((s) => s.steps.splice(to, 0, ...s.steps.splice(index, 1)))
  chosen.value = to
}
function remove(index: number): void {
  void props.draft.edit((s) => s.steps.splice(index, 1))
  chosen.value = null
  message.info('Step taken out. Ctrl Z brings it back.')
}
function insert(key: string): void {
  if (key === 'use') picking.value = true
  else put(key === 'salt' ? freshSalt() : formOf(key).fresh())
}
function put(step: LooseSheet): void {
  const at = chosen.value === null ? steps.value.length : chosen.value + 1
  void props.draft.edit((s) => s.steps.splice(at, 0, step))
  chosen.value = at
  showChosen()
}

onKey((key) => {
  const last = steps.value.length - 1
  if (last < 0) return false
  if (key === 'ArrowDown') chosen.value = chosen.value === null ? 0 : Math.min(last, chosen.value + 1)
  else if (key === 'ArrowUp') chosen.value = chosen.value === null ? last : Math.max(0, chosen.value - 1)
  else if (key === 'Escape') chosen.value = null
  else return false
  showChosen()
  return true
})
</script>

<template>
  <section v-if="worked" aria-label="The sauce, step by step">
    <p class="sum">
      <b>{{ steps.length }}</b> steps, <b>{{ minutes(worked.final.minutes) }}</b> at the stove
    </p>
    <div v-if="changes.length" class="changes good-news" role="status">
      <p>
        <b>{{ changes[0] }}</b>
      </p>
      <ul>
        <li v-for="text in changes.slice(1)" :key="text">{{ text }}</li>
      </ul>
      <NButton size="small" @click="changes = []">Seen</NButton>
      <NButton size="small" :disabled="!past.length" @click="(draft.undo(), (changes = []))">Back to before</NButton>
    </div>
    <div v-if="!steps.length" class="dashed">
      <h3>What goes in first?</h3>
      <p>A roux, or the wine and stock of a reduction. Each step shows its pot at once.</p>
    </div>
    <ol>
      <StepCard
        v-for="(step, i) in steps"
        :key="i"
        :draft="draft"
        :index="i"
        :step="step"
        :card="worked.cards[i]"
        :state="worked.steps[i]"
        :along="worked.along.find((one) => one.step === i)"
        :inside="worked.inside.find((one) => one.of === '' && one.step === i)"
        :chosen="chosen === i"
        :last="i === steps.length - 1"
        @choose="chosen = i"
        @missing="emit('missing', $event)"
        @move="move(i, $event)"
        @remove="remove(i)"
      />
    </ol>
    <div class="add no-print" aria-label="Add a step">
      <span class="label">{{ chosen === null ? 'Then' : `After step ${chosen + 1}` }}</span>
      <NButton v-for="op in common" :key="op" @click="insert(op)">{{ formOf(op).name }}</NButton>
      <NButton @click="insert('salt')">Salt to taste</NButton>
      <NDropdown trigger="click" :options="menu" scrollable style="max-height: 60vh" @select="insert">
        <NButton>Other steps…</NButton>
      </NDropdown>
    </div>
    <PickSauce v-model:show="picking" :not="stored?.id" @pick="put" />
  </section>
</template>

<style scoped>
.sum {
  padding: 0 4px 4px;
  color: var(--ink2);
}
ol {
  display: flex;
  flex-direction: column;
  gap: 4px;
  margin: 0;
  padding: 0;
}
.changes {
  margin-bottom: 8px;
}
.changes ul {
  display: flex;
  flex-wrap: wrap;
  gap: 2px 22px;
  margin: 4px 0 8px;
  padding: 0;
  list-style: none;
}
.add {
  display: flex;
  flex-wrap: wrap;
  gap: 8px;
  align-items: center;
  padding: 12px 4px;
}
</style>
