<script setup lang="ts">
/** One line of a recipe: as it was read, or to settle. What is typed is kept here until it is sent. */
import { NButton, NSelect } from 'naive-ui'
import { useDebounceFn } from '@vueuse/core'
import { computed, ref } from 'vue'
import type { Problem, Schemas } from '@/api/client'
import { amount } from '@/parts/format'
import { found, ingredientOption } from '@/parts/options'
import ProblemLine from '@/parts/ProblemLine.vue'
import { toNext } from '@/parts/typed'
import { useSession } from '@/shell/session'

export interface Said {
  ingredient: string | null
  amount: string
  /** Typed over an amount of ours: the field stays, and ours can come back. */
  over?: boolean
}
const props = defineProps<{ line: Schemas['ReadLine']; said?: Said; problem: Problem | null }>()
const emit = defineEmits<{ settle: [said: Said]; again: [] }>()
const session = useSession()

const typed = ref<Said | null>(null)
const entry = computed<Said>(
  () =>
    typed.value ??
    props.said ?? {
      ingredient: props.line.ingredient ?? props.line.guesses[0] ?? null,
      amount: props.line.amount ? amount(props.line.amount) : '',
    },
)
const type = (change: Partial<Said>) => (typed.value = { ...entry.value, ...change })
/** An amount of ours being typed over: everything else of ours is solved again as it is typed. */
const typing = ref<string | null>(null)
const sendTyped = useDebounceFn((text: string) => {
  if (text.trim()) emit('settle', { ingredient: props.line.ingredient, amount: text, over: true })
  else if (props.said) emit('again')
}, 350)
function typeAmount(text: string): void {
  typing.value = text
  void sendTyped(text)
}
const options = computed(() => [...session.ingredients.values()].map(ingredientOption))
const nameOf = (key: string) => session.ingredients.get(key)?.name ?? key
const statusWords: Record<string, string> = {
  read: 'read',
  ours: 'amount is ours',
  settle: 'please settle',
  unread: 'could not be read',
}
const status = computed(() =>
  props.said ? (props.said.ingredient ? 'settled' : 'left out') : statusWords[props.line.status],
)
</script>

<template>
  <li :class="line.status">
    <div class="text">
      <span class="status">{{ status }}</span>
      <b>{{ line.text }}</b>
    </div>
    <div v-if="line.ingredient && (line.status === 'ours' || said?.over)" class="filled" :class="{ theirs: said }">
      <input
        :value="typing ?? said?.amount ?? (line.amount ? amount(line.amount) : '')"
        :aria-label="`Amount for: ${line.text}`"
        inputmode="text"
        data-amount
        @keydown.enter="toNext"
        @focus="($event.target as HTMLInputElement).select()"
        @input="typeAmount(($event.target as HTMLInputElement).value)"
        @blur="typing = null"
      />
      <span class="named">
        <span class="as">{{ nameOf(line.ingredient) }}</span>
        <span v-if="line.between" class="quiet"
          >{{ amount(line.between.least) }} to {{ amount(line.between.most) }}</span
        >
      </span>
      <NButton v-if="said" size="small" quaternary @click="emit('again')">Back to ours</NButton>
      <NButton v-else size="small" quaternary @click="emit('settle', { ingredient: null, amount: '' })"
        >Leave it out</NButton
      >
      <ProblemLine :problem="problem" />
    </div>
    <template v-else-if="line.status === 'read'">
      <span v-if="line.ingredient" class="as">
        {{ line.amount ? amount(line.amount) : 'to taste' }} {{ nameOf(line.ingredient) }}
      </span>
      <span v-if="line.why" class="quiet remark">{{ line.why }}</span>
      <NButton v-if="said" size="small" @click="emit('again')">Settle it again</NButton>
    </template>
    <form v-else @submit.prevent="emit('settle', entry)">
      <span class="quiet">{{ line.why }}</span>
      <div class="entries">
        <input
          :value="entry.amount"
          :aria-label="`Amount for: ${line.text}`"
          placeholder="how much"
          @input="type({ amount: ($event.target as HTMLInputElement).value })"
        />
        <NSelect
          :value="entry.ingredient"
          filterable
          :filter="found"
          :options="options"
          placeholder="which ingredient"
          :aria-label="`Ingredient for: ${line.text}`"
          @update:value="(key: string) => type({ ingredient: key })"
        />
        <NButton attr-type="submit" :disabled="!entry.ingredient">So it is</NButton>
        <NButton @click="emit('settle', { ingredient: null, amount: '' })">Leave it out</NButton>
      </div>
      <ProblemLine :problem="problem" />
    </form>
  </li>
</template>

<style scoped>
li {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  justify-content: space-between;
  gap: 2px 14px;
  padding: 8px 12px;
  border-left: 5px solid var(--leaf);
  background: var(--fog0);
}
/* What is told of a line that is read: on a line of its own, wherever the rest ends. */
.remark {
  flex: 1 0 100%;
}
.filled {
  display: grid;
  grid-template-columns: 120px minmax(0, 1fr) auto;
  gap: 2px 12px;
  align-items: center;
  flex: 0 1 460px;
}
li.ours {
  flex-wrap: nowrap;
  border-color: var(--russet);
}
.named {
  display: flex;
  flex-direction: column;
}
.filled input {
  width: 120px;
  min-height: 44px;
  padding: 0 10px;
  border: 1px dashed var(--russet);
  border-radius: 8px;
  background: var(--white);
  font: 700 18px var(--text);
}
.filled.theirs input {
  border-style: solid;
  border-color: var(--fog3);
}
.settle,
.unread {
  border-color: var(--butter);
}
li.unread {
  border-color: var(--danger);
}
.text {
  display: grid;
  grid-template-columns: 102px minmax(0, 1fr);
  gap: 14px;
  align-items: baseline;
}
li.ours .text {
  flex: 1 1 0;
}
.status {
  font-size: 14px;
  color: var(--ink2);
}
.text b {
  font-size: 17px;
}
.as {
  color: var(--ink2);
}
form {
  flex-basis: 100%;
}
.entries {
  display: grid;
  grid-template-columns: 130px minmax(140px, 1fr) auto auto;
  gap: 8px;
}
.entries input {
  min-width: 0;
  min-height: 44px;
  padding: 0 10px;
  border: 1px solid var(--fog3);
  border-radius: 8px;
  background: var(--white);
  font: 700 18px var(--text);
}
@media (max-width: 900px) {
  li.ours {
    flex-wrap: wrap;
  }
  li.ours .text {
    flex-basis: 100%;
  }
  .filled {
    flex-basis: 100%;
  }
  .entries {
    grid-template-columns: minmax(0, 1fr) minmax(0, 1fr);
  }
}
</style>
