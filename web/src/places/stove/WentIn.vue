<script setup lang="ts">
/** What really went in: typed in grams, or told by the jug, one weighing, or the level. */
import { computed, nextTick, ref } from 'vue'
import { vChoices } from '@/parts/choices'

const props = defineProps<{ name: string; tareG: number }>()
const emit = defineEmits<{
  put: [grams: number]
  poured: [how: 'jug' | 'scale' | 'level', after: number, before: number]
  close: []
}>()
type How = 'g' | 'jug' | 'scale' | 'level'
const how = ref<How>('g')
const ways = computed(() => [
  { key: 'g' as const, words: 'Weighed' },
  { key: 'jug' as const, words: 'By the jug' },
  { key: 'level' as const, words: 'By the level' },
  ...(props.tareG ? [{ key: 'scale' as const, words: 'Pot on the scale' }] : []),
])
const units: Record<How, string> = { g: 'g', jug: 'mL left', scale: 'g with the pan', level: 'mm deep now' }
const first = ref('')
const before = ref('')
const read = (text: string) => (text.trim() ? Number(text.replace(',', '.')) : Number.NaN)
const fits = computed(() => read(first.value) >= 0 && (how.value !== 'jug' || read(before.value) > read(first.value)))
function say(): void {
  if (!fits.value) return
  if (how.value === 'g') emit('put', read(first.value))
  else emit('poured', how.value, read(first.value), how.value === 'jug' ? read(before.value) : 0)
}
const form = ref<HTMLElement | null>(null)
async function pick(key: How): Promise<void> {
  how.value = key
  await nextTick()
  form.value?.querySelector('input')?.focus()
}
const vFocus = { mounted: (el: HTMLElement) => el.focus() }
</script>

<template>
  <form ref="form" class="went" @submit.prevent="say" @keydown.esc.stop="emit('close')">
    <div v-choices class="ways" role="radiogroup" :aria-label="`How ${name} is told`">
      <button
        v-for="way in ways"
        :key="way.key"
        type="button"
        role="radio"
        :aria-checked="how === way.key"
        @click="pick(way.key)"
      >
        {{ way.words }}
      </button>
    </div>
    <label v-if="how === 'jug'"
      ><input
        v-model="before"
        v-focus
        inputmode="decimal"
        autocomplete="off"
        :aria-label="`The jug held, mL of ${name}`"
      /><small>mL before</small></label
    >
    <label
      ><input
        v-model="first"
        v-focus
        inputmode="decimal"
        autocomplete="off"
        :aria-label="how === 'g' ? `Really went in, g of ${name}` : `${units[how]}, ${name}`"
      /><small>{{ units[how] }}</small></label
    >
    <button type="submit" class="press" :disabled="!fits">went in</button>
    <button type="button" class="press quietly" @click="emit('close')">as planned</button>
  </form>
</template>

<style scoped>
.went {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 8px;
  font-size: 20px;
}
.ways {
  display: flex;
  flex-basis: 100%;
  flex-wrap: wrap;
  gap: 6px;
}
.ways button {
  min-height: 48px;
  padding: 0 14px;
  border: 2px solid var(--fog4);
  border-radius: 10px;
  background: var(--white);
  cursor: pointer;
}
.ways [aria-checked='true'] {
  border-color: var(--ink);
  background: var(--ink);
  color: var(--white);
}
label {
  display: flex;
  align-items: baseline;
  gap: 6px;
}
input {
  width: 170px;
  border: 3px solid var(--russet);
  border-radius: 10px;
  background: var(--white);
  font: 750 48px var(--text);
  text-align: right;
}
</style>
