<script setup lang="ts">
/** A label for every vessel that is filled: what it is, for whom, which of how many, its weight, its
 * allergens, how it is finished. */
import { computed } from 'vue'
import { day, grams } from '@/parts/format'
import type { Plan } from './service'

const props = defineProps<{ plan: Plan }>()
/** More than this of one kind are told on one label. */
const MOST = 12
const labels = computed(() =>
  props.plan.lines.flatMap((line) => {
    const count = line.layout?.vessels ?? 0
    if (line.refused || !count) return []
    return count > MOST
      ? [{ line, which: `${count} alike` }]
      : Array.from({ length: count }, (_, n) => ({ line, which: `${n + 1} of ${count}` }))
  }),
)
</script>

<template>
  <section v-if="labels.length" class="labels">
    <article v-for="({ line, which }, i) in labels" :key="i" :class="{ guest: line.line.without?.length }">
      <b>{{ line.called }}</b>
      <span>{{ line.layout!.name }}, {{ which }} · {{ grams(line.layout!.each_g) }} filled</span>
      <span v-if="plan.service.date">{{ day(plan.service.date) }}</span>
      <span v-if="line.finish">{{ line.finish }}</span>
      <span>{{
        line.allergens?.length ? `with ${line.allergens.join(', ')}` : 'no allergen of the list followed'
      }}</span>
    </article>
  </section>
</template>

<style scoped>
.labels {
  display: grid;
  grid-template-columns: 1fr 1fr;
  gap: 4mm;
}
article {
  display: flex;
  flex-direction: column;
  padding: 6px 10px;
  border: 2px dashed var(--ink);
  font-size: 15px;
  break-inside: avoid;
}
article b {
  font-size: 20px;
  line-height: 1.15;
}
.guest {
  border-left: 10px solid var(--russet);
}
</style>
