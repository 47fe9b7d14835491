<script setup lang="ts">
/** What was done at this pot so far, each to be taken back. */
import { computed } from 'vue'
import type { Schemas } from '@/api/client'
import { timeOf } from '@/parts/format'
import { told } from './told'

const props = defineProps<{ batch: Schemas['BatchOut'] }>()
defineEmits<{ undo: [key: string] }>()
const KINDS = new Set(['saw', 'put', 'poured', 'corrected', 'turned', 'noted', 'mended', 'skipped'])
const titles = computed(() => props.batch.cards.map((card) => card.title))
const shown = computed(() => props.batch.acts.filter((act) => KINDS.has(act.kind)).reverse())
</script>

<template>
  <details v-if="shown.length" class="happened">
    <summary>What happened ({{ shown.length }})</summary>
    <ul>
      <li v-for="act in shown" :key="act.key">
        <span class="quiet">{{ timeOf(act.at) }}, step {{ act.step + 1 }}</span> {{ told(act, titles) }}
        <button @click="$emit('undo', act.key)">Take back</button>
      </li>
    </ul>
  </details>
</template>

<style scoped>
summary {
  min-height: 44px;
  padding-top: 10px;
  font-weight: 600;
  cursor: pointer;
}
ul {
  margin: 0;
  padding: 0;
  list-style: none;
  columns: 26em auto;
}
li {
  min-height: 44px;
  break-inside: avoid;
}
button {
  min-height: 40px;
  padding: 0 12px;
  border: 2px solid var(--fog4);
  border-radius: 8px;
  background: none;
  cursor: pointer;
}
</style>
