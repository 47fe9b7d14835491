<script setup lang="ts">
/** Each tray of what was put away: what readings prove of it, how it goes on, its probe; one is looked at closely. */
import { NButton } from 'naive-ui'
import { computed, ref } from 'vue'
import { api, ask, type Schemas } from '@/api/client'
import ChoiceField from '@/parts/ChoiceField.vue'
import { vChoices } from '@/parts/choices'
import { dayOf } from '@/parts/format'
import { temperature } from '@/parts/ways'
import CoolingPicture from './CoolingPicture.vue'
import { verdictWords } from './words'

const props = defineProps<{ kept: Schemas['KeptOut'] }>()
const emit = defineEmits<{ trouble: [words: string]; load: [] }>()
const tray = defineModel<number>('tray', { required: true })
const shown = computed(() => props.kept.lots.find((one) => one.number === tray.value) ?? props.kept.lots[0]!)
const several = computed(() => props.kept.lots.length > 1)
const read = computed(() => props.kept.read.filter((one) => one.tray === tray.value || one.shared))
const stray = computed(() => props.kept.read.some((one) => one.tray === null && !one.shared && !one.void))
const inIt = computed(() =>
  props.kept.devices.find((one) => one.kept_key === props.kept.key && (one.tray ?? 1) === tray.value),
)
const probes = computed(() => [
  { value: '', label: 'no probe in it' },
  ...props.kept.devices.map((one) => ({ value: String(one.id), label: one.name })),
])
const busy = ref(false)
async function put(id: string): Promise<void> {
  const device = id ? Number(id) : inIt.value?.id
  if (!device) return
  busy.value = true
  try {
    const path = { device_id: device }
    const here = { batch_id: props.kept.batch_id, kept_key: props.kept.key, tray: tray.value }
    await ask(api.PUT('/api/devices/{device_id}', { params: { path }, body: id ? here : { batch_id: null } }))
    emit('load')
  } catch (error) {
    emit('trouble', (error as Error).message)
  } finally {
    busy.value = false
  }
}
const chance = (share: number) => `${Math.round(100 * share)} %`
</script>

<template>
  <section aria-label="Cooling by tray">
    <ul v-if="several" v-choices role="radiogroup" aria-label="Tray">
      <li v-for="one in kept.lots" :key="one.number">
        <button
          type="button"
          role="radio"
          :aria-checked="one.number === tray"
          :class="{ failed: one.failed, gone: one.gone }"
          @click="tray = one.number"
        >
          <b>Tray {{ one.number }}</b>
          <span>{{ one.gone ? 'thrown away' : verdictWords(one) }}</span>
        </button>
      </li>
    </ul>
    <ol class="stages" aria-label="The rule by readings">
      <li v-for="stage in shown.stages" :key="stage.to_c" :class="`is-${stage.verdict}`">
        <b>{{ { met: '✓', missed: '✗', open: '…', 'not-shown': '?' }[stage.verdict] }} {{ stage.words }}</b>
        <span v-if="stage.warmed_again" class="warning">warmed again since</span>
      </li>
    </ol>
    <p v-if="shown.failed" class="warning">
      Use it by {{ dayOf(shown.use_by) }}: nothing shows that it cooled in time. What was done about it does not change
      that.
    </p>
    <template v-if="shown.forecast">
      <p v-for="stage in shown.forecast.stages" :key="stage.to_c" class="forecast">
        Now about <b>{{ temperature(shown.forecast.at_c) }}</b><template v-if="stage.at_min !== null"
          >, {{ temperature(stage.to_c) }} in about
          <b>{{ Math.max(0, Math.round(stage.at_min - shown.forecast.now_min)) }} min</b></template
        >: in time {{ chance(stage.chance) }}. A forecast, no record.
      </p>
      <p v-if="!shown.forecast.fits" class="warning">The sum does not fit what is read. Where is the probe?</p>
      <p v-else-if="shown.forecast.moved" class="quiet">Something about it changed: it goes by the newest readings.</p>
    </template>
    <CoolingPicture :cooling="kept.cooling" :tray="shown" :read="read" :now-min="kept.now_min" />
    <p class="quiet">
      {{ kept.rules.name }}. Line: the sum. {{ read.length ? 'Dots: measured. ' : ''
      }}{{ shown.forecast ? 'Dashed: how it goes on, nine in ten within the band. ' : ''
      }}{{ kept.cooling.cautions.join('. ') }}.
    </p>
    <p v-if="stray" class="warning">A probe is in one of these trays, and nobody said in which. Say so here:</p>
    <div v-if="kept.devices.length && kept.state !== 'gone'" class="probe">
      <ChoiceField
        :label="several ? `Probe in tray ${tray}` : 'Probe'"
        :value="inIt ? String(inIt.id) : ''"
        :options="probes"
        @change="put"
      />
      <NButton v-if="inIt?.value != null" quaternary :loading="busy">{{ temperature(inIt.value, 1) }}</NButton>
    </div>
  </section>
</template>

<style scoped>
section {
  display: flex;
  flex-direction: column;
  gap: 8px;
}
ul,
.stages {
  display: flex;
  flex-wrap: wrap;
  gap: 8px;
  margin: 0;
  padding: 0;
  list-style: none;
}
ul button {
  display: flex;
  flex-direction: column;
  min-height: 56px;
  padding: 6px 14px;
  border: 3px solid var(--fog3);
  border-radius: 10px;
  background: var(--white);
  text-align: left;
  cursor: pointer;
}
ul .failed {
  border-left: 8px solid var(--russet);
}
ul .gone {
  color: var(--ink2);
}
ul [aria-checked='true'] {
  border-color: var(--ink);
}
.stages {
  flex-direction: column;
}
.stages li {
  padding: 8px 12px;
  border-left: 8px solid var(--fog4);
  border-radius: 8px;
  background: var(--white);
  font-size: 18px;
}
.stages .is-met {
  border-color: var(--leaf);
}
.stages .is-missed,
.stages .is-not-shown {
  border-color: var(--russet);
}
.forecast {
  font-size: 18px;
}
.probe {
  display: flex;
  flex-wrap: wrap;
  align-items: end;
  gap: 8px;
}
</style>
