<script setup lang="ts">
/** A dialog: named by its heading, shut by its button, Escape or a press beside it. Where something was typed into a
 * form of it that is not sent yet, it asks first. */
import { NButton, NModal } from 'naive-ui'
import { ref, useId, watch } from 'vue'

const props = withDefaults(
  defineProps<{
    title: string
    show: boolean
    width?: string
    /** Whether it may be shut without an answer. */
    closable?: boolean
  }>(),
  { width: '560px', closable: true },
)
const emit = defineEmits<{ 'update:show': [show: boolean] }>()
const named = useId()
const typed = ref(false)
const asking = ref(false)
watch(
  () => props.show,
  () => (typed.value = asking.value = false),
)
function onInput(event: Event): void {
  if ((event.target as HTMLElement).closest('form')) typed.value = true
}
function shut(): void {
  if (!props.closable) return
  if (typed.value) asking.value = true
  else emit('update:show', false)
}
</script>

<template>
  <NModal :show="show" :mask-closable="closable" :close-on-esc="closable" @update:show="(on: boolean) => on || shut()">
    <!-- A div: the part that keeps the focus inside looks for one. -->
    <div
      role="dialog"
      aria-modal="true"
      :aria-labelledby="named"
      class="dialog"
      :style="{ width: `min(${width}, 97vw)` }"
    >
      <header>
        <h2 :id="named">{{ title }}</h2>
        <button v-if="closable" type="button" class="plain shut" aria-label="Close" @click="shut">
          <span aria-hidden="true">✕</span>
        </button>
      </header>
      <div v-if="asking" class="ask" role="alert">
        <b>What you typed is not kept yet.</b>
        <NButton type="primary" @click="asking = false">Go on with it</NButton>
        <NButton @click="emit('update:show', false)">Throw it away</NButton>
      </div>
      <div class="body" @input="onInput"><slot /></div>
    </div>
  </NModal>
</template>

<style scoped>
.dialog {
  display: flex;
  flex-direction: column;
  /* Held at its top: what comes in later makes it longer, and moves nothing under the hand. */
  align-self: flex-start;
  margin: 3vh auto auto;
  max-height: 94vh;
  border-radius: 12px;
  background: var(--fog0);
  color: var(--ink);
  box-shadow: 0 8px 40px rgb(0 0 0 / 25%);
}
header {
  display: flex;
  align-items: flex-start;
  gap: 12px;
  padding: 16px 12px 8px 22px;
}
h2 {
  flex: 1;
  font-size: 22px;
}
.shut {
  min-width: 44px;
  min-height: 44px;
  border-radius: 8px;
  font-size: 20px;
}
.ask {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 10px;
  padding: 10px 22px;
  background: var(--butter-wash);
}
.ask b {
  flex: 1 1 200px;
}
.body {
  padding: 4px 22px 20px;
  overflow: auto;
}
</style>
