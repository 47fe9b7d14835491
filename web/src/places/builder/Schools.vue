<script setup lang="ts">
/** How it is made: the schools this sauce follows, each a switch to another. */
import { NSelect } from 'naive-ui'
import type { Schemas } from '@/api/client'
import type { Draft } from './draft'
import NumberField from '@/parts/NumberField.vue'

const props = defineProps<{ draft: Draft }>()

const options = (school: Schemas['Followed']) => school.choices.map((c) => ({ value: c.key, label: c.name }))
const why = (school: Schemas['Followed']) => school.choices.find((c) => c.key === school.followed)?.why
function setRatio(text: string): void {
  void props.draft.aim((s) => (s.method.fat_to_flour = text.trim() || null), {}, 'fat_to_flour')
}
</script>

<template>
  <div class="schools">
    <div v-for="school in draft.worked.value?.schools ?? []" :key="school.key">
      <span class="label">{{ school.question }}</span>
      <NSelect
        :value="school.followed"
        :options="options(school)"
        :aria-label="school.question"
        @update:value="(choice: string) => draft.follow(school.key, choice)"
      />
      <p class="quiet">{{ why(school) }}</p>
      <NumberField
        v-if="school.key === 'fat-to-flour'"
        :value="draft.sheet.value.method?.fat_to_flour"
        label="fat to flour, by weight"
        unit=": 1"
        :problem="draft.problemAt('method.fat_to_flour')"
        @change="setRatio"
      />
    </div>
    <p v-if="!draft.worked.value?.schools.length" class="quiet">Cooks do not differ on this sauce yet.</p>
    <p v-if="draft.problemAt('school')" class="problem">{{ draft.problemAt('school')!.message }}</p>
  </div>
</template>

<style scoped>
.schools {
  display: flex;
  flex-direction: column;
  gap: 10px;
}
.quiet {
  font-size: 14px;
}
</style>
