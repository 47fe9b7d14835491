<script setup lang="ts">
/** What was noted last, with its way back, in a line of its own at the foot: it lies over nothing. */
export interface Said {
  words: string
  choices?: { words: string; does: () => void }[]
}
defineProps<{ said: Said | null }>()
const emit = defineEmits<{ over: [] }>()
function choose(does: () => void): void {
  emit('over')
  does()
}
</script>

<template>
  <p class="last-said" role="status" aria-live="polite">
    <template v-if="said">
      <span>{{ said.words }}</span>
      <button v-for="choice in said.choices" :key="choice.words" class="press" @click="choose(choice.does)">
        {{ choice.words }}
      </button>
    </template>
  </p>
</template>

<style scoped>
.last-said {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 4px 12px;
  min-height: 48px;
  margin: 0;
  font-size: 18px;
}
</style>
