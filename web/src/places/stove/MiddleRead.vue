<script setup lang="ts">
/** At a step that warms to a figure in the middle: what the probe says, as a cook reads it off. It goes into the
 * record. Typed and sent, or typed and left: it counts. */
import { ref } from 'vue'
import { degrees, toCelsius } from '@/parts/ways'

defineProps<{ asks: string | null }>()
const emit = defineEmits<{ read: [celsius: string] }>()
const typed = ref('')
function say(): void {
  if (typed.value.trim()) emit('read', toCelsius(typed.value))
  typed.value = ''
}
</script>

<template>
  <form class="middle" :class="{ asked: asks }" aria-label="Its middle" @submit.prevent="say">
    <p>{{ asks ?? 'Its middle is shown to be warm enough.' }}</p>
    <label
      ><input
        v-model="typed"
        autocomplete="off"
        inputmode="decimal"
        :aria-label="`The probe says, ${degrees()}`"
        @blur="say"
      /><span>{{ degrees() }}</span></label
    >
    <button type="submit" class="press" :disabled="!typed.trim()">the probe says</button>
  </form>
</template>

<style scoped>
.middle {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 8px 14px;
  padding: 12px 14px;
  border: 3px solid var(--leaf);
  border-radius: 12px;
  background: var(--white);
  font-size: 20px;
}
.asked {
  border-color: var(--russet);
}
p {
  flex-basis: 100%;
  font-weight: 600;
}
label {
  display: flex;
  align-items: baseline;
  gap: 6px;
}
input {
  width: 130px;
  min-height: 64px;
  border: 2px solid var(--fog4);
  border-radius: 10px;
  background: var(--white);
  font: 750 44px var(--text);
  text-align: right;
}
</style>
