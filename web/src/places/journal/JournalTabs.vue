<script setup lang="ts">
/** The parts of the journal. */
import { RouterLink } from 'vue-router'

const parts = [
  { path: '/journal', name: 'Batches' },
  { path: '/journal/learning', name: 'What they taught' },
  { path: '/journal/weeks', name: 'Made and wasted' },
  { path: '/journal/practice', name: 'Practice' },
]
</script>

<template>
  <header>
    <h1>Journal</h1>
    <nav aria-label="Parts of the journal">
      <RouterLink v-for="part in parts" :key="part.path" :to="part.path" exact-active-class="here">{{
        part.name
      }}</RouterLink>
    </nav>
    <slot />
  </header>
</template>

<style scoped>
header {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 6px 18px;
  margin-bottom: 12px;
}
h1 {
  font-size: 30px;
}
nav {
  display: flex;
  flex-wrap: wrap;
  gap: 4px;
}
a {
  display: flex;
  align-items: center;
  min-height: 44px;
  padding: 0 14px;
  border-radius: 8px;
  font-weight: 600;
  text-decoration: none;
}
a.here {
  background: var(--ink);
  color: var(--fog0);
}
</style>
