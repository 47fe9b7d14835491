<script setup lang="ts">
/** What there is to cook with: ingredients, measures, uses, pans and rings, cooks and things, scales; all of it as one file. */
import { computed } from 'vue'
import { useRoute, useRouter } from 'vue-router'
import Brigade from './Brigade.vue'
import Devices from './Devices.vue'
import Ingredients from './Ingredients.vue'
import Measures from './Measures.vue'
import Pans from './Pans.vue'
import Uses from './Uses.vue'
import WholeKitchen from './WholeKitchen.vue'
import { vChoices } from '@/parts/choices'

const route = useRoute()
const router = useRouter()
const shelves = [
  { key: 'ingredients', name: 'Ingredients', shelf: Ingredients },
  { key: 'measures', name: 'Measures', shelf: Measures },
  { key: 'uses', name: 'Uses', shelf: Uses },
  { key: 'pans', name: 'Pans and rings', shelf: Pans },
  { key: 'brigade', name: 'Cooks and things', shelf: Brigade },
  { key: 'devices', name: 'Scales and probes', shelf: Devices },
  { key: 'whole', name: 'The whole kitchen', shelf: WholeKitchen },
]
const here = computed(() => shelves.find((s) => s.key === route.query.shelf) ?? shelves[0]!)
</script>

<template>
  <div class="place">
    <header>
      <h1>Larder</h1>
      <div v-choices role="tablist" aria-label="Shelves">
        <button
          v-for="s in shelves"
          :key="s.key"
          role="tab"
          :aria-selected="s === here"
          @click="router.replace({ query: { shelf: s.key } })"
        >
          {{ s.name }}
        </button>
      </div>
    </header>
    <component :is="here.shelf" />
  </div>
</template>

<style scoped>
.place {
  display: flex;
  flex-direction: column;
  gap: 10px;
  max-width: 1560px;
  padding: 16px 20px 24px;
}
header {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 4px 20px;
}
h1 {
  font-size: 30px;
}
[role='tab'] {
  min-height: 44px;
  padding: 0 16px;
  border: 0;
  border-bottom: 4px solid transparent;
  background: none;
  font-weight: 700;
  cursor: pointer;
}
[aria-selected='true'] {
  border-color: var(--russet);
}
</style>
