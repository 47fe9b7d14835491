<script setup lang="ts">
/** Only so much of one ingredient: the sauce scaled to it. */
import { NButton, NSelect } from 'naive-ui'
import { computed, ref } from 'vue'
import ProblemLine from '@/parts/ProblemLine.vue'
import type { Draft } from './draft'

const props = defineProps<{ draft: Draft }>()

const haveOpen = ref(false)
const haveKey = ref<string | null>(null)
const haveAmount = ref('')
const inSheet = computed(() => {
  const keys = new Map<string, string>()
  const worked = props.draft.worked.value
  for (const card of [...(worked?.inside ?? []).flatMap((pot) => pot.cards), ...(worked?.cards ?? [])]) {
    for (const w of card.weighed) if (w.ingredient) keys.set(w.ingredient, w.name)
  }
  return [...keys].map(([value, label]) => ({ value, label }))
})
async function scaleToHave(): Promise<void> {
  await props.draft.aim(undefined, { have: { ingredient: haveKey.value ?? '', amount: haveAmount.value } })
  if (!props.draft.problems.value.length) haveOpen.value = false
}
</script>

<template>
  <NButton block secondary :aria-expanded="haveOpen" @click="haveOpen = !haveOpen"> I have only so much of… </NButton>
  <form v-if="haveOpen" class="have" @submit.prevent="scaleToHave">
    <NSelect
      v-model:value="haveKey"
      :options="inSheet"
      :virtual-scroll="false"
      placeholder="Ingredient"
      aria-label="Ingredient there is"
    />
    <input v-model="haveAmount" placeholder="900 mL" aria-label="How much there is" autocomplete="off" />
    <ProblemLine :problem="draft.problemAt('have')" />
    <NButton type="primary" attr-type="submit" block :disabled="!haveKey || !haveAmount"> Scale to it </NButton>
  </form>
</template>

<style scoped>
.have {
  display: flex;
  flex-direction: column;
  gap: 8px;
}
.have input {
  min-height: 44px;
  padding: 2px 12px;
  border: 1px solid var(--fog3);
  border-radius: 8px;
  background: var(--white);
  font: 700 20px var(--text);
}
</style>
