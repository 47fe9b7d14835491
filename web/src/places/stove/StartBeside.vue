<script setup lang="ts">
/** What is no sauce, put on in two presses: what it is, how it is cooked, for how long. */
import { NButton, NSelect } from 'naive-ui'
import { computed, ref, watch } from 'vue'
import { useRouter } from 'vue-router'
import { api, ask, type Schemas } from '@/api/client'
import ProblemLine from '@/parts/ProblemLine.vue'
import { vChoices } from '@/parts/choices'
import { found } from '@/parts/options'
import { useActs } from '@/shell/acts'
import { useForm } from '@/shell/form'
import { useSession } from '@/shell/session'

const props = defineProps<{ hob: Schemas['Hob'] }>()
const session = useSession()
const acts = useActs()
const router = useRouter()
const FOOD = new Set(['meat', 'fish', 'seafood', 'vegetable', 'starch', 'pasta', 'grain'])
const foods = computed(() =>
  [...session.ingredients.values()]
    .filter((row) => FOOD.has(row.role) || props.hob.ways.some((way) => way.does.includes(row.key)))
    .map((row) => ({ value: row.key, label: row.name, aliases: row.aliases.join(' ') })),
)
const what = ref<string | null>(null)
const way = ref(props.hob.ways.find((one) => one.key === 'sear')?.key ?? props.hob.ways[0]?.key ?? '')
const minutes = ref('')
const usual = computed(() => props.hob.ways.find((one) => one.key === way.value)?.minutes)
watch(what, (key) => {
  const does = props.hob.ways.find((one) => one.does.includes(key ?? ''))
  if (does) way.value = does.key
})
const { trouble, busy, run, problemAt } = useForm()
const start = () =>
  run(async () => {
    const row = session.ingredients.get(what.value ?? '')
    const name = row ? row.name.split(',')[0]! : (what.value ?? '')
    const typed = minutes.value.trim() ? Number(minutes.value.replace(',', '.')) : null
    const body = { name, way: way.value, minutes: typed, parts: [], ingredient: row?.key ?? '', task: '' }
    const made = await ask(api.POST('/api/stove/asides', { body }))
    acts.keep(made)
    const seconds = made.cards[0]?.timer_s
    if (seconds) void acts.does(made.id, { kind: 'timer-on', name: 'step', seconds })
    await router.push(`/stove/${made.id}`)
  })
</script>

<template>
  <form class="beside" @submit.prevent="start">
    <label class="what"
      ><span class="label">What is it?</span
      ><NSelect
        v-model:value="what"
        size="large"
        filterable
        tag
        :options="foods"
        :filter="found"
        placeholder="hake, ribbons, a gratin"
        aria-label="What is it?"
    /></label>
    <div v-choices class="ways" role="radiogroup" aria-label="How it is cooked">
      <button
        v-for="one in hob.ways"
        :key="one.key"
        type="button"
        role="radio"
        :aria-checked="way === one.key"
        @click="way = one.key"
      >
        {{ one.name }} <small>{{ one.minutes }} min</small>
      </button>
    </div>
    <label
      ><span class="label">Minutes</span
      ><input
        v-model="minutes"
        class="box"
        inputmode="decimal"
        :placeholder="usual === undefined ? '' : String(usual)"
        aria-label="Minutes it takes"
    /></label>
    <NButton size="large" type="primary" attr-type="submit" class="go" :disabled="!what" :loading="busy"
      >It goes in now</NButton
    >
    <ProblemLine :problem="problemAt('name')" subject="Its name" />
    <ProblemLine :problem="problemAt('minutes')" subject="Its minutes" />
    <p v-if="trouble" class="problem" role="alert">{{ trouble }}</p>
  </form>
</template>

<style scoped>
.beside {
  display: flex;
  flex-wrap: wrap;
  align-items: end;
  gap: 12px;
}
.what {
  flex: 1 1 280px;
}
.ways {
  display: flex;
  flex-basis: 100%;
  flex-wrap: wrap;
  gap: 6px;
  order: 1;
}
.ways button {
  min-height: 48px;
  padding: 0 14px;
  border: 2px solid var(--fog3);
  border-radius: 24px;
  background: var(--white);
  font-weight: 600;
  cursor: pointer;
}
.ways [aria-checked='true'] {
  border-color: var(--ink);
  background: var(--ink);
  color: var(--white);
}
.box {
  width: 90px;
  min-height: 48px;
}
.go {
  min-height: 64px;
}
</style>
