<script setup lang="ts">
/** What if: levers of the sauce, and all that moves with them. Nothing is kept until asked. */
import { NButton } from 'naive-ui'
import { computed, ref, shallowRef, watch } from 'vue'
import { api, ask, type Schemas, type Sheet } from '@/api/client'
import Dialog from '@/parts/Dialog.vue'
import { grams, millilitres, minutes, number, percent } from '@/parts/format'
import LogPlot from '@/parts/LogPlot.vue'
import ThicknessRibbon from '@/parts/ThicknessRibbon.vue'
import { temperature } from '@/parts/ways'
import { useSession } from '@/shell/session'
import type { LooseSheet } from './draft'

const props = defineProps<{ sheet: LooseSheet }>()
const show = defineModel<boolean>('show', { required: true })
const emit = defineEmits<{ keep: [sheet: Sheet] }>()
const session = useSession()
type Found = Schemas['WhatIf']
const found = shallowRef<Found | null>(null)
const pinned = shallowRef<Found | null>(null)
const pulls = ref<Record<string, number>>({})
const trouble = ref('')

let busy = false
let again = false
/** One question at a time; while it is out only the newest pull waits. */
async function look(): Promise<void> {
  if (busy) {
    again = true
    return
  }
  busy = true
  try {
    do {
      again = false
      found.value = await ask(api.POST('/api/work/what-if', { body: { sheet: props.sheet, pulls: pulls.value } }))
      trouble.value = ''
    } while (again)
  } catch (error) {
    trouble.value = (error as Error).message
  } finally {
    busy = false
  }
}
watch(show, (open) => {
  if (!open) return
  pulls.value = {}
  found.value = pinned.value = null
  void look()
})
function pull(key: string, value: number): void {
  pulls.value = { ...pulls.value, [key]: value }
  void look()
}
function reset(): void {
  pulls.value = {}
  void look()
}
function keep(): void {
  if (found.value) emit('keep', found.value.sheet)
  show.value = false
}
const value = (lever: Schemas['Lever']) => pulls.value[lever.key] ?? lever.value
const money = (f: Found) => session.money(f.final.cost)
const figures: { name: string; of: (f: Found) => string }[] = [
  { name: 'Grade', of: (f) => session.gradeName(f.final.grade) || (f.final.reason ?? '') },
  { name: 'Salt', of: (f) => percent(f.final.salt_pct, 2) },
  { name: 'Fat', of: (f) => percent(f.final.fat_pct, 1) },
  { name: 'Time', of: (f) => minutes(f.final.minutes) },
  { name: 'Makes', of: (f) => millilitres(f.final.total_ml ?? f.final.volume_ml) },
  { name: 'Cost', of: money },
]
const target = computed(() => found.value?.sheet.target?.grade ?? null)
const curve = (f: Found) => f.curve.map((p) => ({ x: p.temperature_c, viscosity: p.viscosity_pa_s }))
const setTo = computed(() =>
  Math.max(0, ...(found.value?.curve ?? []).filter((p) => p.set).map((p) => p.temperature_c)),
)
const steps = (f: Found) => f.along.map((p, i) => ({ x: i + 1, viscosity: p.viscosity_pa_s }))
const bars = computed(() => {
  const most = Math.max(1, ...(found.value?.along ?? []).map((p) => p.mass_g))
  return (found.value?.along ?? []).map((p, i) => ({
    x: i + 1,
    share: (0.9 * p.mass_g) / most,
    text: grams(p.mass_g),
  }))
})
</script>

<template>
  <Dialog v-model:show="show" title="What if…" width="1180px">
    <p v-if="trouble" class="problem" role="alert">{{ trouble }}</p>
    <div v-if="found" class="what-if">
      <section class="levers" aria-label="Levers">
        <label v-for="lever in found.levers" :key="lever.key">
          <span class="head"
            ><span>{{ lever.name }}</span
            ><span
              ><span v-if="value(lever) !== lever.value" class="quiet">sheet {{ number(lever.value) }} · </span
              ><b>{{ number(value(lever)) }} {{ lever.unit }}</b></span
            ></span
          >
          <input
            class="lever"
            type="range"
            :value="value(lever)"
            :min="lever.low"
            :max="lever.high"
            :step="lever.step"
            :aria-label="lever.name"
            @input="pull(lever.key, Number(($event.target as HTMLInputElement).value))"
          />
        </label>
        <div class="buttons">
          <NButton :disabled="!Object.keys(pulls).length" @click="reset">Back to the sheet</NButton>
          <NButton @click="pinned = found">{{ pinned ? 'Pin this instead' : 'Pin to compare' }}</NButton>
          <NButton type="primary" :disabled="!Object.keys(pulls).length" @click="keep">Keep it so</NButton>
        </div>
      </section>
      <section class="figures" aria-live="polite">
        <h2>{{ session.gradeName(found.final.grade) || found.final.reason }}</h2>
        <p>{{ found.final.looks }}</p>
        <ThicknessRibbon
          :viscosity="found.final.viscosity_pa_s"
          :low="found.final.viscosity_low_pa_s"
          :high="found.final.viscosity_high_pa_s"
          :target="target"
          :ticks="pinned?.final.viscosity_pa_s ? [pinned.final.viscosity_pa_s] : []"
        />
        <table>
          <thead v-if="pinned">
            <tr>
              <th />
              <th>now</th>
              <th>pinned</th>
            </tr>
          </thead>
          <tbody>
            <tr v-for="f in figures" :key="f.name">
              <td class="quiet">{{ f.name }}</td>
              <td>
                <b>{{ f.of(found) }}</b>
              </td>
              <td v-if="pinned">{{ f.of(pinned) }}</td>
            </tr>
          </tbody>
        </table>
        <p v-for="warning in found.final.warnings" :key="warning" class="warning">{{ warning }}</p>
      </section>
      <figure>
        <figcaption>Along the steps: thickness, and what the pot weighs</figcaption>
        <LogPlot
          label="Thickness and mass along the steps"
          :points="steps(found)"
          :pinned="pinned ? steps(pinned) : null"
          :low="0.5"
          :high="found.along.length + 0.5"
          :ticks="found.along.map((_, i) => ({ x: i + 1, text: String(i + 1) }))"
          :bars="bars"
          :target="target"
        />
      </figure>
      <figure>
        <figcaption>As it cools: thickness against temperature</figcaption>
        <LogPlot
          label="Thickness against temperature"
          :points="curve(found)"
          :pinned="pinned ? curve(pinned) : null"
          :low="0"
          :high="97"
          :ticks="[5, 20, 40, 65, 85].map((t) => ({ x: t, text: temperature(t) }))"
          :mark="setTo ? { from: 0, to: setTo + 5, text: 'set' } : null"
          :target="target"
        />
      </figure>
    </div>
    <p v-else-if="!trouble" class="quiet">Setting out the levers…</p>
  </Dialog>
</template>

<style scoped>
.lever {
  width: 100%;
  height: 32px;
  margin: 0;
  accent-color: var(--russet);
}
.what-if {
  display: grid;
  grid-template-columns: 1fr 1fr;
  gap: 12px 28px;
}
.levers {
  display: flex;
  flex-direction: column;
  gap: 2px;
}
.head {
  display: flex;
  justify-content: space-between;
  align-items: baseline;
  font-weight: 600;
}
.head b {
  font-size: 22px;
}
.levers :deep(.n-slider) {
  padding: 14px 0 18px;
}
.head .quiet {
  font-weight: 400;
}
.buttons {
  display: flex;
  flex-wrap: wrap;
  gap: 8px;
}
h2 {
  font-size: 34px;
}
table {
  width: 100%;
  border-collapse: collapse;
}
th {
  text-align: left;
  font-size: 14px;
  color: var(--ink2);
}
td {
  padding: 2px 8px 2px 0;
  border-bottom: 1px solid var(--fog2);
  font-size: 17px;
}
figure {
  margin: 0;
}
figcaption {
  font-weight: 600;
  color: var(--ink2);
}
@media (max-width: 900px) {
  .what-if {
    grid-template-columns: minmax(0, 1fr);
  }
  .figures {
    order: -1;
  }
}
</style>
