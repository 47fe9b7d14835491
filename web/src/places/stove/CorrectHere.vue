<script setup lang="ts">
/** At the step that corrects: pick the spoon it looks like, and so much goes in. */
import { ref, watch } from 'vue'
import { api, ask, type Schemas } from '@/api/client'
import { amountValue, unitName } from '@/parts/format'
import SpoonPicker from '@/parts/SpoonPicker.vue'

const props = defineProps<{ sheet: Record<string, unknown>; at: number }>()
const seen = ref<number | null>(null)
const found = ref<Schemas['CorrectionOut'] | null>(null)
const trouble = ref('')
watch(seen, async (picked) => {
  if (picked === null) return
  try {
    const body = { sheet: props.sheet, at: props.at, seen_pa_s: picked }
    found.value = await ask(api.POST('/api/work/correct', { body }))
    trouble.value = ''
  } catch (error) {
    trouble.value = (error as Error).message
  }
})
</script>

<template>
  <section class="correct" aria-label="Correct it" aria-live="polite">
    <SpoonPicker v-model="seen" label="Which spoon does it look like?" />
    <p v-if="trouble" class="problem" role="alert">{{ trouble }}</p>
    <template v-else-if="found">
      <p class="goes"><b v-if="found.amount">{{ amountValue(found.amount) }}<small>{{ unitName(found.amount) }}</small></b><b v-else>nothing</b> goes in</p>
      <p v-for="text in found.say" :key="text" class="say">{{ text }}</p>
    </template>
    <p v-else class="quiet">Lift the spoon and pick the one it looks like.</p>
  </section>
</template>

<style scoped>
.goes {
  font-size: 26px;
}
.goes b {
  font-size: 64px;
  line-height: 1.1;
}
.goes small {
  margin-left: 6px;
  font-size: 32px;
}
.say {
  font-size: 20px;
}
</style>
