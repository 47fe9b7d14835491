<script setup lang="ts">
/** What the pot should be after the step: how thick, how deep, how salty, what the scale reads. Or what it is now. */
import { computed } from 'vue'
import type { Schemas } from '@/api/client'
import { mm, scaleReads } from '@/parts/format'
import PotView from '@/parts/PotView.vue'
import SpoonBack from '@/parts/SpoonBack.vue'
import ThicknessRibbon from '@/parts/ThicknessRibbon.vue'
import { fixed } from '@/parts/ways'
import { useSession } from '@/shell/session'

const props = defineProps<{ batch: Schemas['BatchOut']; step: number; card: Schemas['Card']; now?: boolean }>()
const session = useSession()
const plan = computed(() => props.batch.plan)
/** As it follows from what was done; as it was planned where that cannot be played. */
const states = computed(() => props.batch.followed?.states ?? plan.value.states)
const state = computed(() => states.value[props.step] ?? null)
const wanted = computed(() => props.batch.sheet.target?.salt_pct ?? null)
/** What the spoon shows: until its starch has boiled that is not what the sauce will be. */
const asItIs = computed(() => {
  const at = state.value!
  return at.cooked_out === false
    ? {
        grade: at.grade_now,
        looks: at.looks_now ?? at.looks,
        viscosity: at.viscosity_now_pa_s ?? null,
        film: at.film_now_mm ?? null,
      }
    : { grade: at.grade, looks: at.looks, viscosity: at.viscosity_pa_s, film: at.film_mm }
})
const before = computed(() => states.value[props.step - 1]?.level_mm ?? null)
</script>

<template>
  <aside>
    <p v-if="batch.followed_why" class="problem">{{ batch.followed_why }}</p>
    <template v-if="state">
      <span class="label">{{ now ? 'In the pot now' : 'After it' }}</span>
      <p class="grade">{{ session.gradeName(asItIs.grade) || asItIs.looks }}</p>
      <p v-if="state.now" class="as-it-is">{{ state.now }}</p>
      <ThicknessRibbon
        v-if="state.viscosity_pa_s"
        :viscosity="state.viscosity_pa_s"
        :low="state.viscosity_low_pa_s"
        :high="state.viscosity_high_pa_s"
        :now="state.now ? state.viscosity_now_pa_s : null"
        :target="plan.target_grade"
        far
      />
      <div class="pictures">
        <SpoonBack :viscosity="asItIs.viscosity" :film-mm="asItIs.film" :looks="asItIs.looks" />
        <PotView :pan="plan.pan" :state="state" :before="before" />
      </div>
      <p class="scale">
        The scale reads <b>{{ scaleReads(card.scale_g ?? state.total_g ?? state.mass_g) }}</b>
        {{ card.scale_g ? 'with the pan' : 'without the pan'
        }}<template v-if="state.level_mm >= 1"
          >, it stands <b class="dip">{{ mm(state.level_mm) }}</b> deep</template
        >
      </p>
      <p v-if="state.salt_pct" class="salt">
        Salt {{ fixed(state.salt_pct, 2) }} g in 100 g<template v-if="wanted">, {{ fixed(wanted, 2) }} wanted</template>
      </p>
    </template>
  </aside>
</template>

<style scoped>
aside {
  display: flex;
  flex-direction: column;
  gap: 6px;
  align-self: start;
  padding: 10px 14px;
  border-radius: 12px;
  background: var(--white);
  border: 1px solid var(--fog2);
}
.grade {
  font: 600 28px/1.1 var(--display);
}
.as-it-is {
  font-size: 18px;
  color: var(--ink2);
}
.pictures {
  display: grid;
  grid-template-columns: 90px 1fr;
  height: max(160px, 25vh);
  gap: 8px;
}
.scale {
  font-size: 18px;
}
.scale b {
  font-size: 34px;
  line-height: 1.1;
}
.scale .dip {
  font-size: 24px;
}
</style>
