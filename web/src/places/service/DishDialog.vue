<script setup lang="ts">
/** The window a dish is edited in. */
import { NModal } from 'naive-ui'
import DishForm from './DishForm.vue'

/** The number of a dish, or a new one. */
defineProps<{ dish: number | 'new' | null }>()
const emit = defineEmits<{ close: []; saved: [id: number] }>()
</script>

<template>
  <NModal
    :show="dish !== null"
    preset="card"
    :title="dish === 'new' ? 'A new dish' : 'The dish'"
    style="width: min(940px, 98vw)"
    @update:show="(show: boolean) => show || emit('close')"
  >
    <DishForm
      v-if="dish !== null"
      :id="dish === 'new' ? null : dish"
      @close="emit('close')"
      @saved="emit('saved', $event)"
    />
  </NModal>
</template>
