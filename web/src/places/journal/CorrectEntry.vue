<script setup lang="ts">
/** What was written of a finished batch, anew, with the reason: what stood before stays beside it. */
import { NButton } from 'naive-ui'
import { reactive } from 'vue'
import { api, ask, type Schemas } from '@/api/client'
import { newKey } from '@/api/once'
import ChoiceField from '@/parts/ChoiceField.vue'
import SpoonPicker from '@/parts/SpoonPicker.vue'
import TextField from '@/parts/TextField.vue'
import { useForm } from '@/shell/form'

const props = defineProps<{ entry: Schemas['EntryOut']; verdicts: { key: string; name: string }[] }>()
const emit = defineEmits<{ corrected: [Schemas['EntryOut']]; close: [] }>()
const key = newKey() // pressed twice it is written once
const given = reactive({
  weighed: props.entry.actual.mass_g === null ? '' : `${props.entry.actual.mass_g.toFixed(0)} g`,
  reached: props.entry.actual.viscosity_pa_s,
  verdict: props.entry.verdict,
  note: props.entry.note,
  why: '',
})
const { trouble, busy, run, problemAt } = useForm()
const correct = () =>
  run(async () => {
    const { reached, ...said } = given
    const body = { ...said, key, with_pan: false, reached_pa_s: reached }
    const params = { path: { entry_id: props.entry.id } }
    emit('corrected', await ask(api.POST('/api/journal/{entry_id}/corrections', { params, body })))
  })
</script>

<template>
  <form class="correct" :aria-label="`Correct ${entry.name}`" @submit.prevent="correct" @keydown.esc="emit('close')">
    <TextField
      label="it weighed (without its pan)"
      name="It weighed"
      :value="given.weighed"
      placeholder="not weighed"
      :problem="problemAt('weighed')"
      @change="given.weighed = $event"
    />
    <ChoiceField
      label="verdict"
      :value="given.verdict"
      :options="verdicts.map((one) => ({ value: one.key, label: one.name }))"
      @change="given.verdict = $event ?? ''"
    />
    <TextField
      class="wide"
      label="note"
      name="Note"
      :value="given.note"
      :most="2000"
      :problem="problemAt('note')"
      @change="given.note = $event"
    />
    <div class="wide">
      <span class="label">the spoon it reached</span>
      <SpoonPicker v-model="given.reached" label="The spoon it reached" />
    </div>
    <TextField
      class="wide"
      label="why is it corrected?"
      name="Why"
      :value="given.why"
      :most="300"
      :problem="problemAt('why')"
      @change="given.why = $event"
    />
    <p v-if="trouble" class="problem wide" role="alert">{{ trouble }}</p>
    <div class="wide acts">
      <NButton type="primary" attr-type="submit" :loading="busy">Write it so</NButton>
      <NButton @click="emit('close')">Leave it</NButton>
      <span class="quiet">What stood before stays beside it.</span>
    </div>
  </form>
</template>

<style scoped>
.correct {
  display: grid;
  grid-template-columns: repeat(2, minmax(0, 1fr));
  gap: 10px 14px;
  grid-column: 1 / -1;
  padding-top: 10px;
  border-top: 1px solid var(--fog2);
}
.wide {
  grid-column: 1 / -1;
  min-width: 0;
}
.acts {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 8px;
}
@media (max-width: 700px) {
  .correct {
    grid-template-columns: minmax(0, 1fr);
  }
}
</style>
