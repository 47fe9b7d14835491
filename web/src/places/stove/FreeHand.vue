<script setup lang="ts">
/** Cooked free hand: what goes in, as it goes in; what is in so far, each to be put right. */
import { NButton, NDropdown, NSelect } from 'naive-ui'
import { computed, nextTick, ref } from 'vue'
import type { Schemas } from '@/api/client'
import { scaleReads, timeOf, told } from '@/parts/format'
import { found, ingredientOption } from '@/parts/options'
import { formOf, heats, menu, type LooseStep } from '@/parts/steps'
import { useSession } from '@/shell/session'

const props = defineProps<{ batch: Schemas['BatchOut']; poured: number | null }>()
const emit = defineEmits<{ added: [put: LooseStep]; undo: [key: string] }>()
const session = useSession()

const common = [
  { op: 'roux', words: 'Fat and flour' },
  { op: 'add', words: 'Pour or put in' },
  { op: 'simmer', words: 'It boils' },
  { op: 'melt', words: 'Cheese' },
  { op: 'season', words: 'Season' },
]
/** What needs a goal or another sauce is not logged as it happens. */
const LEFT_OUT = new Set(['use', 'reduce', 'correct', 'salt'])
const others = menu
  .map((group) => ({ ...group, children: group.children.filter((one) => !LEFT_OUT.has(one.key)) }))
  .filter((group) => group.children.length)

const op = ref<string | null>(null)
const put = ref<LooseStep>({})
const typed = ref<Record<string, string>>({})
const form = computed(() => (op.value ? formOf(op.value) : null))
const rows = computed(() =>
  (form.value?.rows ?? []).filter(({ part }) => (part ? put.value[part] : put.value)?.ingredient),
)
const holder = (part: string) => (part ? put.value[part] : put.value)
const box = ref<HTMLElement | null>(null)

async function open(kind: string): Promise<void> {
  if (!settle()) return
  put.value = formOf(kind).fresh()
  typed.value = {}
  op.value = kind
  if (!rows.value.length && !form.value!.knobs.some((knob) => knob.key === 'heat')) return say()
  await nextTick()
  box.value?.querySelector<HTMLInputElement>('input.much')?.focus()
}
const options = (roles: string[]) =>
  [...session.ingredients.values()]
    .sort((a, b) => Number(roles.includes(b.role)) - Number(roles.includes(a.role)))
    .map(ingredientOption)
/** A bare number is of the unit that is shown; what is written with one is read as it is. */
const unit = ref<'g' | 'mL'>('g')
const amountOf = (part: string) => ({ value: (typed.value[part] ?? '').trim(), unit: unit.value })
const ready = computed(() => rows.value.every(({ part }) => (typed.value[part] ?? '').trim()))
/** Where one thing goes in, the scale tells how much of it. */
const byScale = computed(() => (rows.value.length === 1 && (props.poured ?? 0) >= 3 ? Math.round(props.poured!) : null))
function say(): void {
  if (!op.value || !ready.value) return
  const step: LooseStep = { ...put.value }
  for (const { part } of rows.value) {
    if (part) step[part] = { ...step[part], amount: amountOf(part) }
    else step.amount = amountOf(part)
  }
  emit('added', step)
  op.value = null
}
/** Typed and gone on: it is in, or what is missing is asked for. False: it is asked for. */
const missing = ref('')
function settle(): boolean {
  missing.value = ''
  if (!op.value || !Object.values(typed.value).some((text) => text.trim())) return true
  if (ready.value) {
    say()
    return true
  }
  const part = rows.value.find((row) => !(typed.value[row.part] ?? '').trim())!.part
  missing.value = `How much ${session.ingredients.get(holder(part).ingredient)?.name.toLowerCase() ?? 'of it'}?`
  const at = rows.value.findIndex((row) => row.part === part)
  box.value?.querySelectorAll<HTMLInputElement>('input.much')[at]?.focus()
  return false
}
defineExpose({ settle })
function takeFromScale(): void {
  typed.value[rows.value[0]!.part] = `${byScale.value} g`
  say()
}

const boiling = computed(() => props.batch.sheet.steps?.at(-1)?.op === 'simmer')
const offTheBoil = () => emit('added', { op: 'hold', minutes: 1, temperature_c: 85, covered: true })

const lastAdded = computed(() => props.batch.acts.filter((act) => act.kind === 'added').at(-1))
const lines = computed(() =>
  props.batch.cards.map((card, n) => ({ card, n, at: props.batch.began[String(n)] })).reverse(),
)
</script>

<template>
  <section class="free" aria-label="Free hand">
    <div class="kinds">
      <span class="label">What goes in, as it does</span>
      <NButton
        v-for="one in common"
        :key="one.op"
        class="kind"
        :type="op === one.op ? 'primary' : 'default'"
        :disabled="one.op === 'simmer' && (boiling || !batch.steps)"
        @click="open(one.op)"
        >{{ one.words }}</NButton
      >
      <NButton v-if="boiling" class="kind" @click="offTheBoil">Off the boil</NButton>
      <NDropdown trigger="click" :options="others" @select="open">
        <NButton class="kind">Something else…</NButton>
      </NDropdown>
    </div>
    <form v-if="op" ref="box" class="adding" @submit.prevent="say" @keydown.esc.stop="op = null">
      <div v-for="row in rows" :key="row.part" class="row">
        <input
          v-model="typed[row.part]"
          class="much"
          autocomplete="off"
          spellcheck="false"
          :aria-label="`How much of ${session.ingredients.get(holder(row.part).ingredient)?.name ?? 'it'}`"
        />
        <button
          type="button"
          class="unit"
          :aria-label="`Unit: ${unit}. Press for the other`"
          @click="unit = unit === 'g' ? 'mL' : 'g'"
        >
          {{ unit }}
        </button>
        <NSelect
          class="what"
          size="large"
          :value="holder(row.part).ingredient"
          :options="options(row.roles)"
          filterable
          :filter="found"
          aria-label="What goes in"
          @update:value="holder(row.part).ingredient = $event"
        />
      </div>
      <div v-if="form?.knobs.some((knob) => knob.key === 'heat') && op === 'simmer'" class="heats">
        <NButton
          v-for="heat in heats"
          :key="heat.value"
          class="kind"
          :type="put.heat === heat.value ? 'primary' : 'default'"
          @click="((put.heat = heat.value), say())"
          >{{ heat.label }}</NButton
        >
      </div>
      <div class="say">
        <NButton v-if="byScale" size="large" class="kind" @click="takeFromScale"
          >{{ scaleReads(byScale) }} by the scale</NButton
        >
        <NButton v-if="rows.length" size="large" type="primary" class="kind" attr-type="submit" :disabled="!ready"
          >It is in</NButton
        >
        <NButton size="large" quaternary class="kind" @click="((op = null), (missing = ''))">Not now</NButton>
      </div>
      <p v-if="missing" class="problem" role="alert">{{ missing }}</p>
      <p v-if="rows.length" class="quiet">Grams, or as you measure: 2 ladles, half a cup, about 350 g.</p>
    </form>
    <ol v-if="lines.length" class="log" aria-label="In it so far" reversed>
      <li v-for="{ card, n, at } in lines" :key="n">
        <span v-if="at" class="quiet">{{ timeOf(at) }}</span>
        <b>{{ card.title }}</b>
        <span>{{ card.weighed.map((one) => `${told(one.amount)} ${one.name.toLowerCase()}`).join(', ') }}</span>
        <button v-if="n === batch.cards.length - 1 && lastAdded" @click="emit('undo', lastAdded.key)">Take back</button>
      </li>
    </ol>
    <p v-else class="quiet">
      Press what goes in first. The pot beside follows: how thick, how much, how salty; and in the end it can be put
      down as a sauce.
    </p>
  </section>
</template>

<style scoped>
.free {
  display: flex;
  flex-direction: column;
  gap: 14px;
}
.kinds,
.heats,
.say {
  display: flex;
  flex-wrap: wrap;
  gap: 8px;
}
.label {
  flex-basis: 100%;
}
.kind {
  min-height: 64px;
  font-size: 19px;
}
.adding {
  display: flex;
  flex-direction: column;
  gap: 10px;
  padding: 14px;
  border: 3px solid var(--russet);
  border-radius: 12px;
  background: var(--white);
}
.row {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 8px;
}
.much {
  width: 200px;
  min-height: 72px;
  border: 2px solid var(--fog4);
  border-radius: 10px;
  background: var(--white);
  font: 750 48px var(--text);
  text-align: right;
}
.unit {
  min-width: 64px;
  min-height: 64px;
  border: 2px solid var(--fog4);
  border-radius: 10px;
  background: none;
  font-size: 24px;
  cursor: pointer;
}
.what {
  flex: 1 1 220px;
}
.log {
  display: flex;
  flex-direction: column;
  gap: 2px;
  margin: 0;
  padding: 0;
  list-style: none;
  font-size: 19px;
}
.log li {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 4px 12px;
  min-height: 44px;
}
.log button {
  min-height: 44px;
  padding: 0 12px;
  border: 2px solid var(--fog4);
  border-radius: 8px;
  background: none;
  cursor: pointer;
}
</style>
