<script setup lang="ts">
/** Right: the pot as it is after the chosen step. */
import { NButton } from 'naive-ui'
import { computed } from 'vue'
import type { Worked } from '@/api/client'
import { grams, millilitres, minutes, number, pascalSeconds, scaleReads } from '@/parts/format'
import PotView from '@/parts/PotView.vue'
import SpoonBack from '@/parts/SpoonBack.vue'
import ThicknessRibbon from '@/parts/ThicknessRibbon.vue'
import { fixed, temperature } from '@/parts/ways'
import { useSession } from '@/shell/session'
import { asideWords, emulsionWords } from './words'

const props = defineProps<{ worked: Worked; chosen: number | null; stale: boolean }>()
defineEmits<{ whole: []; 'to-target': []; 'by-the-sum': [] }>()
const session = useSession()

const state = computed(() =>
  props.chosen === null ? props.worked.final : (props.worked.steps[props.chosen] ?? props.worked.final),
)
const before = computed(() => {
  const at = (props.chosen ?? props.worked.steps.length - 1) - 1
  return props.worked.steps[at]?.level_mm ?? null
})
const target = computed(() => props.worked.sheet.target?.grade ?? null)
const off = computed(() => props.chosen === null && target.value !== null && props.worked.final.grade !== target.value)
const salt = computed(() => {
  const { salt_to_add_g: add, salt_over_g: over } = props.worked.final
  if (over && over > 0.05) return { text: `${number(over)} g over`, bad: true }
  if (add && add > 0.05) return { text: `${number(add)} g still to add`, bad: false }
  return null
})
const creamy = computed(
  () =>
    state.value.fat_volume_share > 0.45 && (state.value.viscosity_pa_s !== null || state.value.emulsion !== 'stable'),
)
const edges = computed(() => session.catalogue?.emulsion_edges ?? [])
const whole = (share = 0) => Math.round(100 * share)
/** Where a fat share lies along the bar, which runs from 40 to 90 %. */
const risk = (share: number) => Math.min(100, Math.max(0, (share - 0.4) * 200))
</script>

<template>
  <section class="pot-now" :class="{ stale }" aria-label="In the pot now" aria-live="polite">
    <header>
      <span class="label">{{
        chosen === null ? 'The finished sauce' : `After step ${chosen + 1} of ${worked.steps.length}`
      }}</span>
      <NButton v-if="chosen !== null" size="small" quaternary @click="$emit('whole')">
        Finished: {{ session.gradeName(worked.final.grade) || 'no grade' }}
      </NButton>
    </header>
    <h2 :class="{ unknown: !state.grade }">
      {{ state.grade ? session.gradeName(state.grade) : 'no grade yet' }}
    </h2>
    <p class="looks">{{ state.looks }}</p>
    <p v-if="state.now" class="as-it-is">{{ state.now }}</p>
    <ThicknessRibbon
      :viscosity="state.viscosity_pa_s"
      :low="state.viscosity_low_pa_s"
      :high="state.viscosity_high_pa_s"
      :now="state.now ? state.viscosity_now_pa_s : null"
      :target="target"
    />
    <slot v-if="chosen === null" name="sure" />
    <p v-if="state.viscosity_pa_s" class="quiet small">
      An estimate: {{ pascalSeconds(state.viscosity_pa_s) }} at {{ temperature(state.serving_c) }}, likely
      {{ number(Number(state.viscosity_low_pa_s!.toPrecision(2))) }} to
      {{ number(Number(state.viscosity_high_pa_s!.toPrecision(2))) }}.
    </p>
    <p v-if="worked.sheet.strength && chosen === null" class="small judged">
      As it was judged: what thickens it counts {{ number(worked.sheet.strength) }} times.
      <NButton size="small" @click="$emit('by-the-sum')">By the sum again</NButton>
    </p>
    <div v-if="off" class="off">
      <p><b>Off its target.</b> Wanted {{ session.gradeName(target) }}.</p>
      <NButton type="primary" @click="$emit('to-target')">Bring to target</NButton>
    </div>
    <div class="pictures">
      <SpoonBack :viscosity="state.viscosity_pa_s" :film-mm="state.film_mm" :looks="state.looks" />
      <PotView :pan="worked.pan" :state="state" :before="before" />
    </div>
    <dl>
      <div>
        <dt>Weighs</dt>
        <dd>{{ grams(state.total_g ?? state.mass_g) }}</dd>
      </div>
      <div v-if="worked.pan.tare_g">
        <dt>With the pan</dt>
        <dd>{{ scaleReads((state.total_g ?? state.mass_g) + worked.pan.tare_g) }}</dd>
      </div>
      <div v-else>
        <dt>Measures</dt>
        <dd>{{ millilitres(state.total_ml ?? state.volume_ml) }}</dd>
      </div>
      <div>
        <dt>Time so far</dt>
        <dd>{{ minutes(state.minutes) }}</dd>
      </div>
      <div v-if="(state.total_ml ?? 0) - (state.yield_ml ?? 0) > 1">
        <dt>Sauce of it</dt>
        <dd>{{ millilitres(state.yield_ml!) }}</dd>
      </div>
      <div v-if="state.pieces_g">
        <dt>Of it pieces</dt>
        <dd>{{ grams(state.pieces_g) }}</dd>
      </div>
      <div>
        <dt>Pot at</dt>
        <dd>{{ temperature(state.temperature_c) }}</dd>
      </div>
      <div>
        <dt>Salt</dt>
        <dd>{{ fixed(state.salt_pct, 2) }} %</dd>
      </div>
      <div>
        <dt>Fat</dt>
        <dd>{{ number(Math.round(10 * state.fat_pct) / 10) }} %</dd>
      </div>
      <div v-if="state.acid_pct >= 0.15">
        <dt>Acid</dt>
        <dd>{{ fixed(state.acid_pct, 2) }} %</dd>
      </div>
      <div v-if="state.sugar_pct >= 1">
        <dt>Sugar</dt>
        <dd>{{ fixed(state.sugar_pct, 1) }} %</dd>
      </div>
      <div v-if="state.alcohol_pct >= 0.05">
        <dt>Alcohol left</dt>
        <dd>{{ fixed(state.alcohol_pct, 1) }} %</dd>
      </div>
      <div>
        <dt>Energy</dt>
        <dd>{{ Math.round(state.kcal) }} kcal</dd>
      </div>
      <div>
        <dt>Cost</dt>
        <dd>{{ session.money(state.cost) }}</dd>
      </div>
    </dl>
    <p v-if="worked.need && chosen === null" class="quiet">
      For {{ worked.need.told_for }}: {{ Math.round(worked.need.each_kcal) }} kcal,
      {{ session.money(worked.need.each_cost) }}
    </p>
    <div v-if="creamy" class="cream" :class="state.emulsion">
      <span
        >The cream <b>{{ emulsionWords[state.emulsion] }}</b></span
      >
      <svg
        viewBox="0 0 100 8"
        preserveAspectRatio="none"
        role="img"
        :aria-label="`Fat takes ${Math.round(100 * state.fat_volume_share)} % of the room`"
      >
        <rect width="100" height="8" rx="2" fill="var(--fog2)" />
        <rect
          :width="risk(state.fat_volume_share)"
          height="8"
          rx="2"
          :fill="
            state.emulsion === 'stable'
              ? 'var(--leaf)'
              : state.emulsion === 'caution'
                ? 'var(--butter)'
                : 'var(--russet)'
          "
        />
        <line
          v-for="edge in edges"
          :key="edge"
          :x1="risk(edge)"
          :x2="risk(edge)"
          y1="0"
          y2="8"
          stroke="var(--ink)"
          stroke-width="0.6"
        />
      </svg>
      <span class="quiet small"
        >Fat takes {{ Math.round(100 * state.fat_volume_share) }} % of the room: rich from {{ whole(edges[0]) }}, oily
        from {{ whole(edges[1]) }}, split at {{ whole(edges[2]) }}.</span
      >
    </div>
    <p v-if="salt && chosen === null" class="salt" :class="{ warning: salt.bad }">Salt: {{ salt.text }}.</p>
    <ul v-if="salt?.bad && chosen === null" class="remedies">
      <li v-for="text in worked.salt_remedies" :key="text">{{ text }}</li>
    </ul>
    <p v-for="aside in state.set_aside" :key="aside.purpose + aside.mass_g" class="quiet">
      Set aside {{ asideWords[aside.purpose] }}: <b>{{ grams(aside.mass_g) }}</b>
    </p>
    <p v-if="state.allergens.length" class="allergens">
      <span class="label">Allergens</span>
      <b v-for="allergen in state.allergens" :key="allergen">{{ allergen }}</b>
    </p>
    <p v-for="warning in state.warnings" :key="warning" class="warning">{{ warning }}</p>
    <p v-for="text in worked.assumed" :key="text" class="quiet small">Assumed: {{ text }}.</p>
  </section>
</template>

<style scoped>
.pot-now {
  display: flex;
  flex-direction: column;
  gap: 6px;
}
.stale {
  opacity: 0.75;
}
header {
  display: flex;
  justify-content: space-between;
  align-items: center;
  min-height: 30px;
}
h2 {
  font-size: 40px;
  line-height: 1;
}
h2.unknown {
  font-size: 28px;
  color: var(--ink2);
}
.looks {
  font-size: 17px;
}
.as-it-is {
  font-size: 16px;
  color: var(--ink2);
}
.small {
  font-size: 13.5px;
  line-height: 1.3;
}
.pictures {
  display: grid;
  grid-template-columns: 104px 1fr;
  gap: 4px;
  height: max(168px, 27vh);
}
.off {
  display: flex;
  align-items: center;
  justify-content: space-between;
  gap: 8px;
  padding: 8px 12px;
  border-radius: 10px;
  background: var(--russet-wash);
}
dl {
  display: grid;
  grid-template-columns: 1fr 1fr;
  gap: 2px 18px;
  margin: 0;
}
dl div {
  display: flex;
  flex-wrap: wrap;
  gap: 0 8px;
  justify-content: space-between;
  align-items: baseline;
  border-bottom: 1px solid var(--fog2);
}
dt {
  color: var(--ink2);
  font-size: 14px;
}
dd {
  margin: 0 0 0 auto;
  font-weight: 700;
  font-size: 17px;
}
.cream {
  display: flex;
  flex-direction: column;
  gap: 2px;
}
.cream svg {
  width: 100%;
  height: 10px;
}
.remedies {
  margin: 0;
  padding-left: 20px;
}
.allergens {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 6px;
}
.allergens b {
  padding: 1px 9px;
  border: 1.5px solid var(--ink2);
  border-radius: 999px;
  font-size: 14px;
}
.warning::before {
  content: 'Mind: ';
  font-weight: 800;
}
</style>
