<script setup lang="ts">
/** Fix it: a pot the app has never seen. How much, how thick, how hot, what is in it. */
import { NSelect } from 'naive-ui'
import { computed, onMounted, reactive, ref } from 'vue'
import { api, ask, type Problem, type Schemas } from '@/api/client'
import AmountField, { type TypedAmount } from '@/parts/AmountField.vue'
import FixIt from '@/parts/FixIt.vue'
import NumberField from '@/parts/NumberField.vue'
import SpoonPicker from '@/parts/SpoonPicker.vue'
import { firstAt } from '@/shell/form'
import { useSession } from '@/shell/session'
import ProblemLine from '@/parts/ProblemLine.vue'

const session = useSession()
const kinds = ref<Schemas['Kind'][]>([])
onMounted(async () => {
  kinds.value = (await ask(api.GET('/api/work/signs')).catch(() => null))?.kinds ?? []
})
const pot = reactive({
  kind: 'white-sauce',
  amount: { value: 2, unit: 'L' } as TypedAmount | string,
  viscosity: null as number | null,
  temperature: '75' as string,
  wanted: 'nappe',
  serving: '65' as string,
  salt: '' as string,
})
const problems = ref<Problem[]>([])
const problem = (field: string) => firstAt(problems.value, `seen.${field}`)
const shownFields = ['amount', 'temperature_c', 'viscosity_pa_s', 'serving_c', 'salt_pct']
const elsewhere = computed(() =>
  problems.value.filter((p) => !shownFields.some((f) => p.field.startsWith(`seen.${f}`))),
)
const number = (text: string) => Number(text.trim().replace(',', '.'))
const seen = computed<Schemas['SeenIn'] | null>(() =>
  pot.viscosity === null
    ? null
    : {
        kind: pot.kind,
        amount: pot.amount,
        viscosity_pa_s: pot.viscosity,
        temperature_c: number(pot.temperature) || 0,
        wanted: pot.wanted,
        serving_c: number(pot.serving) || 0,
        salt_pct: pot.salt.trim() === '' ? null : number(pot.salt),
      },
)
const shown = computed<TypedAmount>(() =>
  typeof pot.amount === 'string' ? { value: pot.amount, unit: '' } : pot.amount,
)
</script>

<template>
  <div class="place">
    <header>
      <h1>Fix it</h1>
      <p class="quiet">
        A pot that is not as it should be. For one of your own sauces, open it and press Fix it there: it knows what
        went in.
      </p>
    </header>
    <section class="pot sheet" aria-label="The pot">
      <label class="field">
        <span class="label">What it is</span>
        <NSelect
          v-model:value="pot.kind"
          :options="kinds.map((k) => ({ value: k.key, label: k.name }))"
          aria-label="What it is"
        />
      </label>
      <div class="row">
        <div class="field">
          <span class="label">How much</span>
          <AmountField
            :amount="shown"
            label="How much"
            big
            :problem="problem('amount')"
            @change="pot.amount = $event"
          />
        </div>
        <NumberField
          :value="pot.temperature"
          label="How hot"
          unit="°C"
          :problem="problem('temperature_c')"
          @change="pot.temperature = $event"
        />
      </div>
      <div>
        <span class="label">How thick it looks now</span>
        <SpoonPicker v-model="pot.viscosity" label="How thick it looks now" thin />
        <ProblemLine :problem="problem('viscosity_pa_s')" />
      </div>
      <div class="row">
        <label class="field">
          <span class="label">Should be</span>
          <NSelect
            v-model:value="pot.wanted"
            :options="session.grades.map((g) => ({ value: g.key, label: g.name }))"
            aria-label="Should be"
          />
        </label>
        <NumberField
          :value="pot.serving"
          label="served at"
          unit="°C"
          :problem="problem('serving_c')"
          @change="pot.serving = $event"
        />
        <NumberField
          :value="pot.salt"
          label="salt, if known"
          unit="%"
          :problem="problem('salt_pct')"
          @change="pot.salt = $event"
        />
      </div>
      <p class="quiet small">
        Usual proportions are assumed for its kind; the amounts are estimates. Go in halves and look again.
      </p>
    </section>
    <ProblemLine v-for="p in elsewhere" :key="p.field" :problem="p" :subject="`${p.field.replace('seen.', '')}:`" />
    <FixIt v-if="seen" :seen="seen" @problems="problems = $event" />
    <p v-else class="ask">Pick the spoon that looks like it.</p>
  </div>
</template>

<style scoped>
.place {
  display: grid;
  grid-template-columns: minmax(360px, 5fr) 7fr;
  gap: 12px 24px;
  align-items: start;
  max-width: 1500px;
  padding: 16px 20px 24px;
}
.place > header {
  grid-column: 1 / -1;
}
h1 {
  font-size: 30px;
}
.pot {
  display: flex;
  flex-direction: column;
  gap: 12px;
  padding: 14px;
}
.pot > .field {
  flex: none;
}
.row {
  display: flex;
  flex-wrap: wrap;
  gap: 12px;
}
.field {
  flex: 1 1 160px;
  display: block;
}
.small {
  font-size: 14px;
}
.ask {
  padding: 40px 20px;
  font: 600 26px/1.2 var(--display);
  color: var(--ink2);
}
@media (max-width: 900px) {
  .place {
    grid-template-columns: minmax(0, 1fr);
  }
}
</style>
