<script setup lang="ts">
/** The stove: its rings with what is on them, and ways to put on more. */
import { NButton } from 'naive-ui'
import { computed, onMounted, ref } from 'vue'
import { useRoute, useRouter } from 'vue-router'
import { api, ask, type Schemas } from '@/api/client'
import ChoiceField from '@/parts/ChoiceField.vue'
import ProblemLine from '@/parts/ProblemLine.vue'
import { useActs } from '@/shell/acts'
import { useForm } from '@/shell/form'
import { useHob } from '@/shell/hob'
import HobMap from './HobMap.vue'
import StartBeside from './StartBeside.vue'

const pots = useHob()
const acts = useActs()
const router = useRouter()
const route = useRoute()
const hob = ref<Schemas['Hob'] | null>(null)
const looked = ref(false)
const starting = ref<'free' | 'beside' | null>(null)
onMounted(async () => {
  await pots.look().catch(() => undefined)
  looked.value = true
  const only = pots.pots.length === 1 ? pots.pots[0] : undefined
  if (only && route.query.hob === undefined) return void router.replace(`/stove/${only.id}`)
  hob.value = await ask(api.GET('/api/stove/hob')).catch(() => null)
})
const name = ref('')
const pan = ref('')
const pans = computed(() => [
  { value: '', label: 'the one that fits' },
  ...(hob.value?.pans ?? []).map((one) => ({ value: one, label: one })),
])
const { trouble, busy, run, problemAt } = useForm()
const startFree = () =>
  run(async () => {
    const made = await ask(api.POST('/api/stove/free', { body: { name: name.value, pan: pan.value } }))
    acts.keep(made)
    await router.push(`/stove/${made.id}`)
  })
const vFocus = { mounted: (el: HTMLElement) => el.focus() }
</script>

<template>
  <div class="place">
    <h1>Stove</h1>
    <p v-if="looked && !pots.pots.length" class="lead">
      No pot is on. Cook a saved sauce: its steps come one at a time, with timers that keep running when you look away.
      Or log as you go, free hand.
    </p>
    <div class="start">
      <NButton type="primary" size="large" @click="router.push('/sauces')">Pick a sauce</NButton>
      <NButton size="large" :aria-expanded="starting === 'free'" @click="starting = starting === 'free' ? null : 'free'"
        >Free hand</NButton
      >
      <NButton
        v-if="hob"
        size="large"
        :aria-expanded="starting === 'beside'"
        @click="starting = starting === 'beside' ? null : 'beside'"
        >Fish, pasta, oven…</NButton
      >
    </div>
    <form v-if="starting === 'free'" class="start sheet" @submit.prevent="startFree">
      <label
        ><span class="label">What will it be?</span
        ><input
          v-model="name"
          v-focus
          class="box"
          maxlength="120"
          placeholder="cap for the rye toasts"
          aria-label="What will it be?"
      /></label>
      <ChoiceField label="In which pan?" :value="pan" :options="pans" @change="pan = $event" />
      <NButton size="large" type="primary" attr-type="submit" :loading="busy">Pot on</NButton>
      <ProblemLine :problem="problemAt('name')" subject="Its name" />
      <p v-if="trouble" class="problem" role="alert">{{ trouble }}</p>
    </form>
    <StartBeside v-if="starting === 'beside' && hob" class="sheet start" :hob="hob" />
    <HobMap v-if="hob || pots.pots.length" :rings="hob?.rings ?? []" :pots="pots.pots" />
  </div>
</template>

<style scoped>
.place {
  display: flex;
  flex-direction: column;
  gap: 12px;
  padding: 16px 20px;
}
h1 {
  font-size: 30px;
}
.lead {
  max-width: 60ch;
  font-size: 20px;
}
.start {
  display: flex;
  flex-wrap: wrap;
  align-items: end;
  gap: 10px;
}
.sheet {
  padding: 14px;
}
.box {
  width: min(420px, 80vw);
  min-height: 48px;
}
</style>
