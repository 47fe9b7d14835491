<script setup lang="ts">
/** What really went in: as it is typed, or told by the jug, one weighing, or the level. Typed and sent, or typed and
 * left: it counts. */
import { computed, nextTick, ref } from 'vue'
import { vChoices } from '@/parts/choices'

const props = defineProps<{
  name: string
  tareG: number
  /** What a bare number is of. */
  unit: string
}>()
const emit = defineEmits<{
  put: [amount: string]
  poured: [how: 'jug' | 'scale' | 'level', after: string, before: string]
  close: []
}>()
type How = 'typed' | 'jug' | 'scale' | 'level'
const how = ref<How>('typed')
const ways = computed(() => [
  { key: 'typed' as const, words: 'As measured' },
  { key: 'jug' as const, words: 'By the jug' },
  { key: 'level' as const, words: 'By the level' },
  ...(props.tareG ? [{ key: 'scale' as const, words: 'Pot on the scale' }] : []),
])
const fields: Record<How, { words: string; of: string }> = {
  typed: { words: '', of: 'Really went in' },
  jug: { words: 'mL left in it', of: 'The jug holds still, mL' },
  scale: { words: 'g with the pan', of: 'The scale reads, g with the pan' },
  level: { words: 'mm deep now', of: 'Deep now, mm' },
}
const first = ref('')
const before = ref('')
/** Of a jug that was emptied, what it held is enough. */
const fits = computed(() => Boolean(how.value === 'jug' ? before.value.trim() : first.value.trim()))
let over = false
function say(): void {
  if (!fits.value || over) return
  over = true
  if (how.value === 'typed') emit('put', first.value.trim())
  else emit('poured', how.value, first.value.trim() || '0', how.value === 'jug' ? before.value.trim() : '0')
}
function close(): void {
  over = true
  emit('close')
}
const form = ref<HTMLElement | null>(null)
function left(event: FocusEvent): void {
  if (!form.value?.contains(event.relatedTarget as Node | null)) say()
}
async function pick(key: How): Promise<void> {
  how.value = key
  await nextTick()
  form.value?.querySelector('input')?.focus()
}
const vFocus = { mounted: (el: HTMLElement) => el.focus() }
</script>

<template>
  <form ref="form" class="went" @submit.prevent="say" @keydown.esc.stop="close" @focusout="left">
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
      ><input v-model="before" v-focus autocomplete="off" :aria-label="`The jug held, mL of ${name}`" /><small
        >mL before</small
      ></label
    >
    <label
      ><input
        v-model="first"
        v-focus
        autocomplete="off"
        :placeholder="how === 'jug' ? '0' : ''"
        :aria-label="`${fields[how].of}, ${name}`"
      /><small>{{ fields[how].words || unit }}</small></label
    >
    <button type="submit" class="press" :disabled="!fits">went in</button>
    <button type="button" class="press quietly" @click="close">as planned</button>
    <p v-if="how === 'typed'" class="quiet">As you measured it: 80 mL, half a cup, 3 ladles, about 350 g.</p>
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
  width: 220px;
  border: 3px solid var(--russet);
  border-radius: 10px;
  background: var(--white);
  font: 750 44px var(--text);
  text-align: right;
}
.quiet {
  flex-basis: 100%;
  font-size: 16px;
}
</style>
