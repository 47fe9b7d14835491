<script setup lang="ts">
/** A sauce's tags: words of the kitchen's own to find it by. */
import { NButton } from 'naive-ui'
import { ref, watch } from 'vue'
import type { Schemas } from '@/api/client'
import Dialog from '@/parts/Dialog.vue'
import TextField from '@/parts/TextField.vue'

const props = defineProps<{ sauce: Schemas['SauceLine'] | null; known: string[] }>()
const emit = defineEmits<{ close: []; tagged: [tags: string[]] }>()
const typed = ref('')
watch(
  () => props.sauce,
  (sauce) => (typed.value = sauce?.tags.join(', ') ?? ''),
)
const words = () =>
  typed.value
    .split(',')
    .map((word) => word.trim())
    .filter(Boolean)
function toggle(tag: string): void {
  const there = words()
  typed.value = (there.includes(tag) ? there.filter((one) => one !== tag) : [...there, tag]).join(', ')
}
function keep(): void {
  emit('tagged', words())
  emit('close')
}
</script>

<template>
  <Dialog :show="sauce !== null" :title="`Tags of ${sauce?.name ?? ''}`" width="520px" @update:show="emit('close')">
    <form class="tagging" @submit.prevent="keep">
      <TextField :value="typed" label="Tags, with commas between" @change="(text: string) => (typed = text)" />
      <div v-if="known.length" class="known">
        <button
          v-for="tag in known"
          :key="tag"
          type="button"
          class="chip"
          :aria-pressed="words().includes(tag)"
          @click="toggle(tag)"
        >
          {{ tag }}
        </button>
      </div>
      <NButton type="primary" attr-type="submit">Keep</NButton>
    </form>
  </Dialog>
</template>

<style scoped>
.tagging {
  display: flex;
  flex-direction: column;
  gap: 12px;
}
.known {
  display: flex;
  flex-wrap: wrap;
  gap: 8px;
}
</style>
