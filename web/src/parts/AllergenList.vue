<script setup lang="ts">
/** Allergens followed through to a dish, each told by its name. */
defineProps<{ allergens: string[] }>()
</script>

<template>
  <p>
    <span class="label">Allergens</span><b v-for="a in allergens" :key="a">{{ a }}</b>
    <span v-if="!allergens.length" class="quiet">none followed</span>
  </p>
</template>

<style scoped>
p {
  display: flex;
  flex-wrap: wrap;
  gap: 6px;
  align-items: center;
}
b {
  padding: 1px 9px;
  border: 1.5px solid var(--ink2);
  border-radius: 999px;
  font-size: 14px;
}
</style>
