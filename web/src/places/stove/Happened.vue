<script setup lang="ts">
/** What was done at this pot so far, each to be taken back. */
import { computed } from 'vue'
import type { Schemas } from '@/api/client'

const props = defineProps<{ batch: Schemas['BatchOut'] }>()
defineEmits<{ undo: [key: string] }>()
const KINDS = new Set(['saw', 'put', 'turned', 'noted', 'mended'])
interface Told {
  grams?: number
  text?: string
  title?: string
  what?: string
  value?: number
}
function words(act: Schemas['ActTold']): string {
  const { grams, text, title, what, value = 0 } = act.data as Told
  if (act.kind === 'put') return `${grams} g went in`
  if (act.kind === 'turned') return 'what is to come, weighed otherwise'
  if (what === 'scale') return `scale ${value} g`
  if (what === 'level') return `level ${value} mm`
  if (what === 'gone') return `${Math.round(100 * value)} % gone`
  if (what === 'spoon') return 'spoon picked'
  if (what === 'boils') return 'it boils'
  return text ?? title ?? ''
}
const shown = computed(() => props.batch.acts.filter((act) => KINDS.has(act.kind)).reverse())
const time = (iso: string) => new Date(iso).toLocaleTimeString('en-GB', { hour: '2-digit', minute: '2-digit' })
</script>

<template>
  <details v-if="shown.length" class="happened">
    <summary>What happened ({{ shown.length }})</summary>
    <ul>
      <li v-for="act in shown" :key="act.key">
        <span class="quiet">{{ time(act.at) }}, step {{ act.step + 1 }}</span> {{ words(act) }}
        <button v-if="act.kind !== 'mended'" @click="$emit('undo', act.key)">Take back</button>
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
