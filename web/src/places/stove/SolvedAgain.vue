<script setup lang="ts">
/** The pot would not come out as it should: what is still to come, weighed otherwise, brings it there. */
import { NButton } from 'naive-ui'
import type { Schemas } from '@/api/client'
import { grams } from '@/parts/format'

defineProps<{ again: Schemas['Again'] }>()
defineEmits<{ take: [changes: Schemas['TurnedAmount'][]]; fix: [] }>()
</script>

<template>
  <section class="again" role="status" aria-label="Solved again">
    <p>{{ again.words }}.</p>
    <template v-if="again.changes.length">
      <p class="instead">
        <span v-for="one in again.changes" :key="one.step + one.field"
          ><b>{{ grams(one.grams) }}</b> {{ one.name.toLowerCase() }} <small>for {{ grams(one.was_g) }}</small></span
        >
      </p>
      <NButton size="large" type="primary" secondary @click="$emit('take', again.changes)">Weigh it so</NButton>
    </template>
    <NButton v-else size="large" @click="$emit('fix')">Fix it</NButton>
  </section>
</template>

<style scoped>
.again {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 6px 20px;
  padding: 8px 16px;
  border: 2px solid var(--russet);
  border-radius: 12px;
  background: var(--russet-wash);
  font-size: 18px;
}
.instead {
  display: flex;
  flex: 1;
  flex-wrap: wrap;
  gap: 4px 20px;
}
b {
  font-size: 26px;
}
small {
  color: var(--ink2);
}
</style>
