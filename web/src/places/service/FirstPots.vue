<script setup lang="ts">
/** The sauces made first for a pot of a service: how much, in which pan, and on with them. */
import { NButton, NSelect } from 'naive-ui'
import { computed } from 'vue'
import { grams, minutes } from '@/parts/format'
import type { Plan } from './service'

const props = defineProps<{ plan: Plan; of: string; pans: { value: string; label: string }[] }>()
defineEmits<{ pan: [pot: string, name: string]; cook: [pot: string] }>()
const pots = computed(() => props.plan.first.filter((pot) => pot.of === props.of))
</script>

<template>
  <section v-for="pot in pots" :key="pot.key" class="first">
    <p>
      <b>First: {{ pot.name }}</b
      >, {{ pot.batches > 1 ? `${pot.batches} × ` : '' }}{{ grams(pot.made_g) }}, {{ minutes(pot.minutes) }}, in
      {{ pot.in_pan }}
    </p>
    <div>
      <NSelect
        :value="plan.service.pans?.[pot.key] ?? ''"
        :options="pans"
        :virtual-scroll="false"
        :aria-label="`In which pan: ${pot.name}`"
        @update:value="$emit('pan', pot.key, $event)"
      />
      <NButton :aria-label="`Cook ${pot.name}`" @click="$emit('cook', pot.key)">Cook it</NButton>
    </div>
  </section>
</template>

<style scoped>
.first {
  padding-left: 10px;
  border-left: 4px solid var(--sauce);
}
.first div {
  display: flex;
  gap: 8px;
  max-width: 420px;
}
</style>
