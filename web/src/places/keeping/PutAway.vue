<script setup lang="ts">
/** Putting a sauce away: how much, in what, where it cools quickly enough, and for when. */
import { NButton, NSwitch } from 'naive-ui'
import { useSessionStorage } from '@vueuse/core'
import { computed, onMounted, reactive, ref, watch } from 'vue'
import { useRouter } from 'vue-router'
import { api, ask, Refused, type Problem, type Schemas } from '@/api/client'
import ChoiceField from '@/parts/ChoiceField.vue'
import ProblemLine from '@/parts/ProblemLine.vue'
import { grams } from '@/parts/format'
import { degrees, toCelsius, toShown } from '@/parts/ways'
import { newKey } from '@/api/once'
import { vChoices } from '@/parts/choices'
import { firstAt } from '@/shell/form'
import CoolingPicture from './CoolingPicture.vue'

const props = defineProps<{ batch: number }>()
const router = useRouter()
const where = ref<Schemas['Where'] | null>(null)
const trouble = ref('')
const problems = ref<Problem[]>([])
/** What was weighed at the stove and is not written down yet is proposed. */
const weighed = useSessionStorage(
  `kestrel.weighing.${props.batch}`,
  { weighed: '', withPan: false },
  { writeDefaults: false },
)
const form = reactive({
  grams: weighed.value.weighed,
  withPan: Boolean(weighed.value.weighed && weighed.value.withPan),
  tray: '',
  trays: '1',
  from: '',
  covered: true,
  forWhen: '',
})
const place = ref<string | null>(null)
const found = ref<Schemas['Cooling'][]>([])
const busy = ref(false)
const key = newKey() // pressed twice it is put away once
const mine = computed(() => where.value?.possible.find((one) => one.batch_id === props.batch))
const number = (text: string) => (text.trim() ? Number(text.replace(',', '.')) : null)
onMounted(async () => {
  try {
    where.value = await ask(api.GET('/api/keeping/where'))
    form.tray = where.value.trays.find((name) => /tray/i.test(name)) ?? where.value.trays.at(-1) ?? ''
  } catch (error) {
    trouble.value = (error as Error).message
  }
})
const given = computed(() => ({
  batch_id: props.batch,
  grams: form.grams.trim() || null,
  with_pan: form.withPan,
  tray: form.tray,
  trays: number(form.trays) ?? 1,
  from_c: number(toCelsius(form.from)),
  covered: form.covered,
}))
let asked = 0
watch(
  given,
  async (body) => {
    if (!body.tray) return
    const turn = ++asked
    try {
      const answer = await ask(api.POST('/api/keeping/cooling', { body }))
      if (turn !== asked) return
      found.value = answer
      problems.value = []
      trouble.value = ''
      // The first that is quick enough is offered, until another is pressed.
      if (!place.value || !answer.find((one) => one.place === place.value))
        place.value = (answer.find((one) => one.ok) ?? answer[0])?.place ?? null
    } catch (error) {
      if (turn !== asked) return
      problems.value = error instanceof Refused ? error.problems : []
      trouble.value = (error as Error).message
    }
  },
  { deep: true },
)
const howMuch = computed(() => {
  const typed = form.grams.trim()
  if (!typed) return grams(mine.value?.grams ?? 0)
  return `${/[a-z]/i.test(typed) ? typed : `${typed} g`}${form.withPan ? ' less its pan' : ''}`
})
const nameOf = (key: string) => where.value?.places.find((one) => one.key === key)?.name ?? key
const chosen = computed(() => found.value.find((one) => one.place === place.value))
const late = computed(() => Boolean(form.forWhen && mine.value && form.forWhen > mine.value.use_by))
const problemAt = (field: string) => firstAt(problems.value, field)
async function put(): Promise<void> {
  busy.value = true
  try {
    const body = {
      ...given.value,
      key,
      place: place.value!,
      for_when: form.forWhen || null,
      utc_offset_min: -new Date().getTimezoneOffset(),
    }
    const kept = await ask(api.POST('/api/keeping', { body }))
    await ask(
      api.POST('/api/keeping/{kept_id}/labels', {
        params: { path: { kept_id: kept.id } },
        body: { copies: 1, utc_offset_min: body.utc_offset_min },
      }),
    ).catch(() => undefined) // it is put away all the same; a label can be made later
    await router.push(`/keeping/${kept.id}`)
  } catch (error) {
    problems.value = error instanceof Refused ? error.problems : []
    trouble.value = (error as Error).message
  } finally {
    busy.value = false
  }
}
</script>

<template>
  <div class="place">
    <h1>Put away{{ mine ? `: ${mine.name}` : '' }}</h1>
    <p v-if="trouble" class="problem" role="alert">{{ trouble }}</p>
    <template v-if="where">
      <form class="what" @submit.prevent="put">
        <label
          ><span class="label">How much, g</span
          ><input
            v-model="form.grams"
            class="box"
            autocomplete="off"
            :placeholder="mine ? String(mine.grams) : ''"
            aria-label="Grams to put away"
          />
          <ProblemLine :problem="problemAt('grams')" />
        </label>
        <label class="switch"><NSwitch v-model:value="form.withPan" /> weighed with the pan</label>
        <ChoiceField
          label="In"
          :value="form.tray"
          :options="where.trays.map((one) => ({ value: one, label: one }))"
          @change="form.tray = $event"
        />
        <label
          ><span class="label">How many</span
          ><input v-model="form.trays" class="box short" inputmode="numeric" aria-label="How many trays" />
          <ProblemLine :problem="problemAt('trays')" />
        </label>
        <label
          ><span class="label">Measured, {{ degrees() }}</span
          ><input
            v-model="form.from"
            class="box short"
            inputmode="decimal"
            :placeholder="mine ? String(Math.round(toShown(mine.temperature_c))) : ''"
            aria-label="Measured: how warm it is"
          />
          <ProblemLine :problem="problemAt('from_c')" />
        </label>
        <label class="switch"><NSwitch v-model:value="form.covered" /> film on it</label>
        <label
          ><span class="label">For when?</span
          ><input v-model="form.forWhen" class="box date" type="date" aria-label="For when"
        /></label>
      </form>
      <p v-if="late" class="warning">
        It keeps {{ mine!.keeps }}: until {{ mine!.use_by }}. For later freeze it, or make it nearer to the day.
      </p>
      <div v-if="found.length" class="verdicts">
        <ul v-choices role="radiogroup" aria-label="Where it cools">
          <li v-for="one in found" :key="one.place">
            <button
              type="button"
              role="radio"
              :aria-checked="place === one.place"
              :class="{ ok: one.ok }"
              @click="place = one.place"
            >
              <b>{{ nameOf(one.place) }}</b>
              <span>{{ one.ok ? '✓ ' : '✗ ' }}{{ one.words }}</span>
            </button>
          </li>
        </ul>
        <div v-if="chosen" class="shown">
          <CoolingPicture :cooling="chosen" />
          <p class="quiet">
            {{ where.rules.name }}.
            <template v-if="chosen.depth_mm">{{ Math.round(chosen.depth_mm) }} mm deep. </template
            >{{ chosen.cautions.join('. ') }}.
          </p>
        </div>
      </div>
      <NButton
        size="large"
        type="primary"
        class="go"
        :loading="busy"
        :disabled="!place || Boolean(problems.length)"
        @click="put"
        >Put away {{ howMuch }}{{ place ? `, ${nameOf(place)}` : '' }}</NButton
      >
    </template>
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
  font-size: 28px;
}
.what {
  display: flex;
  flex-wrap: wrap;
  align-items: end;
  gap: 10px 16px;
}
.box {
  width: 150px;
  min-height: 48px;
  font-size: 20px;
}
.short {
  width: 90px;
}
.date {
  width: 190px;
}
.switch {
  display: flex;
  align-items: center;
  gap: 8px;
  min-height: 48px;
}
.verdicts {
  display: grid;
  grid-template-columns: minmax(300px, 2fr) 3fr;
  gap: 16px;
}
ul {
  display: flex;
  flex-direction: column;
  gap: 6px;
  margin: 0;
  padding: 0;
  list-style: none;
}
li button {
  display: flex;
  flex-direction: column;
  width: 100%;
  min-height: 56px;
  padding: 6px 12px;
  border: 3px solid var(--fog3);
  border-left: 8px solid var(--russet);
  border-radius: 10px;
  background: var(--white);
  text-align: left;
  cursor: pointer;
}
li .ok {
  border-left-color: var(--leaf);
}
[aria-checked='true'] {
  border-color: var(--ink);
}
.go {
  min-height: 64px;
}
@media (max-width: 800px) {
  .verdicts {
    grid-template-columns: minmax(0, 1fr);
  }
}
</style>
