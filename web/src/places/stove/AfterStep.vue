<script setup lang="ts">
/** What the pot should be after the step: how thick, how deep, what the scale reads. */
import { computed } from 'vue'
import type { Schemas } from '@/api/client'
import { scaleReads } from '@/parts/format'
import PotView from '@/parts/PotView.vue'
import SpoonBack from '@/parts/SpoonBack.vue'
import ThicknessRibbon from '@/parts/ThicknessRibbon.vue'
import { useSession } from '@/shell/session'

const props = defineProps<{ plan: NonNullable<Schemas['BatchOut']['plan']>; step: number; card: Schemas['Card'] }>()
const session = useSession()
const state = computed(() => props.plan.states[props.step] ?? null)
const before = computed(() => props.plan.states[props.step - 1]?.level_mm ?? null)
</script>

<template>
  <aside>
    <template v-if="state">
      <span class="label">After it</span>
      <p class="grade">{{ session.gradeName(state.grade) || state.looks }}</p>
      <ThicknessRibbon
        v-if="state.viscosity_pa_s"
        :viscosity="state.viscosity_pa_s"
        :low="state.viscosity_low_pa_s"
        :high="state.viscosity_high_pa_s"
        :target="plan.target_grade"
      />
      <div class="pictures">
        <SpoonBack :viscosity="state.viscosity_pa_s" :film-mm="state.film_mm" :looks="state.looks" />
        <PotView :pan="plan.pan" :state="state" :before="before" />
      </div>
      <p class="scale">
        The scale reads <b>{{ scaleReads(card.scale_g ?? state.total_g ?? state.mass_g) }}</b>
        {{ card.scale_g ? 'with the pan' : 'without the pan' }}
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
  padding: 14px;
  border-radius: 12px;
  background: var(--white);
  border: 1px solid var(--fog2);
}
.grade {
  font: 600 28px/1.1 var(--display);
}
.pictures {
  display: grid;
  grid-template-columns: 90px 1fr;
  height: max(170px, 27vh);
  gap: 8px;
}
.scale {
  font-size: 18px;
}
.scale b {
  display: block;
  font-size: 34px;
  line-height: 1.1;
}
</style>
