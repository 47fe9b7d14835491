<script setup lang="ts">
/** At the step that corrects: pick the spoon it looks like, and so much goes in. */
import { computed, onMounted, ref, watch } from 'vue'
import { api, ask, type Schemas } from '@/api/client'
import { amountValue, unitName } from '@/parts/format'
import SpoonPicker from '@/parts/SpoonPicker.vue'

const props = defineProps<{ batch: number; revision: number; held: Schemas['Weighed'][]; words: string }>()
const emit = defineEmits<{ corrected: [grams: number, viscosity: number] }>()
const seen = ref<number | null>(null)
const found = ref<Schemas['Correction'] | null>(null)
const trouble = ref('')
async function look(): Promise<void> {
  try {
    const path = { batch_id: props.batch }
    const body = { seen_pa_s: seen.value }
    found.value = await ask(api.POST('/api/stove/{batch_id}/correct', { params: { path }, body }))
    trouble.value = ''
  } catch (error) {
    trouble.value = (error as Error).message
  }
}
onMounted(look)
watch(() => [seen.value, props.revision], look)
const spoons = computed(() =>
  (found.value?.spoons ?? []).map((one) => ({ ...one, key: one.name + one.film_mm, target_pa_s: one.viscosity_pa_s })),
)
</script>

<template>
  <section class="correct" aria-label="Correct it" aria-live="polite">
    <p v-if="found && seen !== null" class="goes">
      <b v-if="found.amount"
        >{{ amountValue(found.amount) }}<small>{{ unitName(found.amount) }}</small></b
      ><b v-else>nothing</b> goes in
    </p>
    <p v-for="one in seen === null ? held : []" :key="one.ingredient" class="goes">
      <b
        >{{ amountValue(one.amount) }}<small>{{ unitName(one.amount) }}</small></b
      >
      {{ one.name.toLowerCase() }} held back
    </p>
    <button
      v-if="found && seen !== null"
      class="press"
      @click="emit('corrected', found.amount ? found.grams : 0, seen)"
    >
      {{ found.amount ? 'It is in' : 'Nothing went in' }}
    </button>
    <p v-if="trouble" class="problem" role="alert">{{ trouble }}</p>
    <p class="label">Lift the spoon. Which does it look like?</p>
    <SpoonPicker v-model="seen" :spoons="spoons" label="Which spoon does it look like?" />
    <p v-for="text in found && seen !== null ? found.notes : [words]" :key="text" class="say">{{ text }}</p>
  </section>
</template>

<style scoped>
.correct :deep(.spoons) {
  grid-template-columns: repeat(5, 1fr);
}
.goes {
  font-size: 26px;
}
.goes b {
  font-size: 76px;
  line-height: 1.1;
}
.goes small {
  margin-left: 6px;
  font-size: 32px;
}
.say {
  font-size: 22px;
}
@media (max-width: 700px) {
  .goes b {
    font-size: 54px;
  }
  .correct :deep(.spoons) {
    gap: 4px;
  }
  .correct :deep(svg) {
    height: 60px;
    max-width: 100%;
  }
}
</style>
