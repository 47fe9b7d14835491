<script setup lang="ts">
/** “I haven't got…”: what may stand in for an ingredient, with what else moves. */
import { NButton } from 'naive-ui'
import { computed, ref, watch } from 'vue'
import { api, ask, type Schemas, type Sheet } from '@/api/client'
import Dialog from '@/parts/Dialog.vue'
import type { LooseSheet } from './draft'

const props = defineProps<{ sheet: LooseSheet; missing: { key: string; name: string } | null }>()
const emit = defineEmits<{ take: [sheet: Sheet, words: string[]]; close: [] }>()
const swaps = ref<Schemas['Swap'][] | null>(null)
const trouble = ref('')
watch(
  () => props.missing?.key,
  async (key) => {
    swaps.value = null
    trouble.value = ''
    if (!key) return
    try {
      swaps.value = await ask(api.POST('/api/work/swaps', { body: { sheet: props.sheet, ingredient: key } }))
    } catch (error) {
      trouble.value = (error as Error).message
    }
  },
)
const open = computed(() => swaps.value?.filter((s) => s.sheet) ?? [])
const closed = computed(() => swaps.value?.filter((s) => !s.sheet) ?? [])
function take(swap: Schemas['Swap']): void {
  emit('take', swap.sheet as Sheet, [`${swap.name} in place of ${props.missing?.name}`, ...swap.changes])
  emit('close')
}
</script>

<template>
  <Dialog
    :show="missing !== null"
    :title="`No ${missing?.name.toLowerCase() ?? ''}?`"
    width="760px"
    @update:show="(show: boolean) => show || emit('close')"
  >
    <p v-if="trouble" class="problem" role="alert">{{ trouble }}</p>
    <p v-else-if="!swaps" class="quiet">Trying what the larder has…</p>
    <template v-else>
      <p class="quiet">Solved again for the same grade, yield and salt. Taste is yours to judge.</p>
      <ul>
        <li v-for="swap in open" :key="swap.ingredient">
          <div>
            <b class="name">{{ swap.name }}</b>
            <p class="moves">{{ swap.changes.join(' · ') }}</p>
            <p v-if="swap.gains.length" class="gains">Brings an allergen: {{ swap.gains.join(', ') }}</p>
            <p v-if="swap.loses.length" class="quiet">Without {{ swap.loses.join(', ') }}</p>
          </div>
          <NButton :aria-label="`Take ${swap.name}`" @click="take(swap)">Take it</NButton>
        </li>
      </ul>
      <p v-if="!open.length">Nothing in the larder stands in for it.</p>
      <details v-if="closed.length">
        <summary>{{ closed.length }} that do not go</summary>
        <p v-for="swap in closed" :key="swap.ingredient">
          <b>{{ swap.name }}</b>: {{ swap.refused }}
        </p>
      </details>
    </template>
  </Dialog>
</template>

<style scoped>
ul {
  max-height: 60vh;
  margin: 8px 0 0;
  padding: 0;
  overflow: auto;
  list-style: none;
}
li {
  display: grid;
  grid-template-columns: minmax(0, 1fr) auto;
  gap: 12px;
  align-items: center;
  padding: 8px 0;
  border-top: 1px solid var(--fog2);
}
.name {
  font-size: 19px;
}
.moves {
  font-size: 15px;
}
.gains {
  font-weight: 700;
  color: var(--danger);
}
summary {
  min-height: 44px;
  line-height: 44px;
  cursor: pointer;
}
</style>
