<script setup lang="ts">
/** The sheet before the door: signing in, coming in by an invitation. */
import { onMounted, ref } from 'vue'

defineEmits<{ submit: [] }>()
const form = ref<HTMLFormElement | null>(null)
onMounted(() => form.value?.querySelector('input')?.focus())
</script>

<template>
  <main class="entry">
    <form ref="form" class="sheet" @submit.prevent="$emit('submit')">
      <h1>Kestrel Fog</h1>
      <slot />
    </form>
  </main>
</template>

<style scoped>
.entry {
  display: grid;
  place-items: center;
  min-height: 100%;
  padding: 20px;
  background: linear-gradient(var(--fog0), var(--fog2) 55%, var(--fog1));
}
form {
  display: flex;
  flex-direction: column;
  gap: 16px;
  width: min(420px, 100%);
  padding: 32px;
}
h1 {
  font-size: 40px;
}
:deep(.lead) {
  color: var(--ink2);
}
:deep(label) {
  display: flex;
  flex-direction: column;
  gap: 4px;
}
</style>
