<script setup lang="ts">
/** Left: what the sauce is for, how many, how thick, how much there is of one thing. */
import { NButton, NSelect } from 'naive-ui'
import { computed } from 'vue'
import AmountField, { type TypedAmount } from '@/parts/AmountField.vue'
import NumberField from '@/parts/NumberField.vue'
import ProblemLine from '@/parts/ProblemLine.vue'
import { vChoices } from '@/parts/choices'
import { useSession } from '@/shell/session'
import type { Draft } from './draft'
import HaveOnly from './HaveOnly.vue'
import PanAndRing from './PanAndRing.vue'
import Schools from './Schools.vue'

const props = defineProps<{ draft: Draft }>()
const session = useSession()

const target = computed(() => props.draft.sheet.value.target ?? {})
const serves = computed(() => target.value.serves ?? null)
const use = computed(() => session.uses.find((u) => u.key === serves.value?.use))
const need = computed(() => props.draft.worked.value?.need)
/** Whether the use counts portions themselves, and nothing in them (grams of solids, slices). */
const byPortion = computed(() => use.value?.counted_in === 'portions')
const uses = computed(() => [
  { value: '', label: 'Just a yield' },
  ...session.uses.map((u) => ({ value: u.key, label: u.name })),
])

function setUse(key: string): void {
  if (!key) void props.draft.aim((s) => (s.target.serves = null))
  else {
    // So many are fed whatever it is for; what a portion takes is the use's own.
    const portions = need.value?.portions ?? session.uses.find((u) => u.key === key)?.start_portions ?? 10
    const next = { use: key, portions, margin_pct: serves.value?.margin_pct }
    void props.draft.aim(undefined, { serves: next })
  }
}
function setServes(field: 'portions' | 'each' | 'per_ml', text: string): void {
  const value = text.trim() === '' && field !== 'portions' ? null : text
  void props.draft.aim(
    (s) => {
      const portions = s.target.serves.portions ?? need.value?.portions
      s.target.serves = { ...s.target.serves, portions, count: null, [field]: value }
    },
    {},
    `serves.${field}`,
  )
}
function setTarget(field: string, value: unknown): void {
  void props.draft.aim((s) => (s.target[field] = value), {}, `target.${field}`)
}
function setVolume(amount: TypedAmount | string): void {
  void props.draft.aim(
    (s) => {
      s.target.volume = amount
      s.target.serves = null
    },
    {},
    'volume',
  )
}
</script>

<template>
  <section class="for-what" aria-label="What it is for">
    <div class="group">
      <span class="label">For</span>
      <NSelect
        :value="serves?.use ?? ''"
        :options="uses"
        :virtual-scroll="false"
        aria-label="Use"
        @update:value="setUse"
      />
      <p v-if="draft.problemAt('target.serves.use')" class="problem">
        {{ draft.problemAt('target.serves.use')!.message }}
      </p>
      <div v-if="serves" class="pair">
        <NumberField
          :value="serves.portions ?? need?.portions"
          label="portions"
          :problem="draft.problemAt('target.serves.portions')"
          @change="setServes('portions', $event)"
        />
        <NumberField
          v-if="byPortion"
          :value="serves.per_ml ?? use?.per_ml"
          label="sauce for each"
          unit="mL"
          :problem="draft.problemAt('target.serves.per_ml')"
          @change="setServes('per_ml', $event)"
        />
        <NumberField
          v-else
          :value="serves.each ?? need?.each ?? use?.each"
          :label="`a portion, ${use?.counted_in ?? ''}`"
          :problem="draft.problemAt('target.serves.each')"
          @change="setServes('each', $event)"
        />
      </div>
      <NumberField
        v-if="serves && !byPortion"
        :value="serves.per_ml ?? use?.per_ml"
        :label="`sauce for each, ${use?.counted_in ?? ''}`"
        unit="mL"
        :problem="draft.problemAt('target.serves.per_ml')"
        @change="setServes('per_ml', $event)"
      />
      <p v-if="use" class="quiet small">{{ use.why }}.</p>
      <ul v-if="need" class="lines">
        <li v-for="line in need.lines" :key="line">{{ line }}</li>
      </ul>
      <p v-if="need?.enough" class="enough" role="status">
        <b>{{ need.enough }}</b>
      </p>
      <div class="makes">
        <span>makes</span>
        <AmountField
          v-if="target.volume !== undefined && target.volume !== null"
          big
          :amount="target.volume"
          label="Yield"
          :problem="draft.problemAt('target.volume')"
          @change="setVolume"
        />
        <NButton
          v-else-if="draft.worked.value"
          @click="setVolume({ value: Math.round(draft.worked.value.final.volume_ml), unit: 'mL' })"
        >
          Set a yield
        </NButton>
      </div>
    </div>

    <div class="group">
      <span id="how-thick" class="label">How thick, at the table</span>
      <div v-choices class="grades" role="radiogroup" aria-labelledby="how-thick">
        <button
          role="radio"
          :aria-checked="target.grade === 'liquid'"
          title="thinner than pouring: a jus, a thin soured-cream sauce; how thin, its steps say"
          @click="setTarget('grade', 'liquid')"
        >
          <b>liquid</b>
        </button>
        <button
          v-for="grade in session.grades"
          :key="grade.key"
          role="radio"
          :aria-checked="grade.key === target.grade"
          :title="`${grade.looks}; for ${grade.serves}`"
          @click="setTarget('grade', grade.key)"
        >
          <b>{{ grade.name }}</b>
        </button>
      </div>
      <div v-if="draft.problemAt('target.grade')">
        <ProblemLine :problem="draft.problemAt('target.grade')" subject="The grade" />
        <NButton v-if="draft.nearest.value" size="small" @click="draft.takeNearest()">Take the nearest</NButton>
      </div>
      <div class="pair">
        <NumberField
          :value="target.serving_c"
          label="served at"
          unit="°C"
          :problem="draft.problemAt('target.serving_c')"
          @change="setTarget('serving_c', $event)"
        />
        <NumberField
          :value="target.salt_pct"
          label="salt, per 100 g"
          unit="g"
          :problem="draft.problemAt('target.salt_pct')"
          @change="draft.salt"
        />
      </div>
    </div>

    <div class="group">
      <PanAndRing :draft="draft" />
    </div>

    <div class="group">
      <details>
        <summary class="label">How it is made</summary>
        <Schools :draft="draft" />
      </details>
    </div>

    <div class="group">
      <HaveOnly :draft="draft" />
    </div>
  </section>
</template>

<style scoped>
.for-what {
  display: flex;
  flex-direction: column;
  gap: 10px;
}
.group {
  display: flex;
  flex-direction: column;
  gap: 6px;
  padding: 12px;
  border-radius: 12px;
  background: var(--fog0);
  border: 1px solid var(--fog2);
}
.pair {
  display: flex;
  flex-wrap: wrap;
  gap: 10px 16px;
}
.small {
  font-size: 14px;
}
.lines {
  margin: 0;
  padding: 0;
  list-style: none;
  font-size: 14px;
  color: var(--ink2);
}
.makes {
  display: flex;
  align-items: baseline;
  gap: 8px;
  font-size: 18px;
}
.grades {
  display: grid;
  grid-template-columns: 1fr 1fr;
  gap: 6px;
}
.grades button {
  min-height: 46px;
  padding: 4px 10px;
  border: 2px solid var(--fog3);
  border-radius: 8px;
  background: var(--white);
  text-align: left;
  cursor: pointer;
}
.grades button[aria-checked='true'] {
  border-color: var(--ink);
  background: var(--ink);
  color: var(--white);
}
summary {
  min-height: 30px;
  cursor: pointer;
}
</style>
