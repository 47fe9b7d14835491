<script setup lang="ts">
/** What is wrong with an entry and what would be right, under it. Nothing while nothing is wrong. */
import type { Problem } from '@/api/client'

defineProps<{ problem?: Problem | null; subject?: string }>()
</script>

<template>
  <span v-if="problem" class="problem" role="alert">
    {{ subject ? `${subject} ` : '' }}{{ problem.message }}. {{ problem.remedy }}.
  </span>
</template>

<style scoped>
.problem {
  display: block;
}
</style>
