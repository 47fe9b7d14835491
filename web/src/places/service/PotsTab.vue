<script setup lang="ts">
/** Pots, sauces, dishes: how they hang together, and the figures of the one chosen. */
import { NButton } from 'naive-ui'
import { millilitres } from '@/parts/format'
import FlowPicture from './FlowPicture.vue'
import NodeDetail from './NodeDetail.vue'
import type { Plan, ServiceDraft } from './service'

const chosen = defineModel<string | null>('chosen', { required: true })
defineProps<{ service: ServiceDraft; plan: Plan }>()
const emit = defineEmits<{ cook: [pot: string] }>()
</script>

<template>
  <div class="pots">
    <p class="sum">
      <b>{{ millilitres(plan.needs_ml) }}</b> of sauce needed; <b>{{ millilitres(Math.max(0, plan.left_ml)) }}</b> left
      over.
      <span class="quiet">Each dish by halves of its own recipe would leave {{ millilitres(plan.by_recipe_ml) }}.</span>
    </p>
    <FlowPicture :plan="plan" :chosen="chosen" class="picture" @choose="chosen = $event" />
    <div class="list" role="group" aria-label="Pots, sauces, dishes">
      <button v-for="pot in plan.pots" :key="pot.key" :class="{ here: chosen === pot.key }" @click="chosen = pot.key">
        <b>{{ pot.name }}</b> {{ millilitres(pot.made_ml) }}
      </button>
      <button v-for="b in plan.branches" :key="b.key" :class="{ here: chosen === b.key }" @click="chosen = b.key">
        {{ b.name }} <b>{{ millilitres(b.made_ml) }}</b>
      </button>
    </div>
    <div v-if="chosen" class="drawer">
      <NButton quaternary class="close" aria-label="Close the figures" @click="chosen = null">×</NButton>
      <NodeDetail :service="service" :chosen="chosen" @cook="emit('cook', $event)" />
    </div>
    <p v-else class="quiet">Press a pot, a sauce or a dish for its figures, and to change them there.</p>
  </div>
</template>

<style scoped>
.pots {
  display: flex;
  flex-direction: column;
  flex: 1;
  gap: 10px;
}
.sum b {
  font-size: 22px;
}
.list {
  display: none;
}
.picture {
  flex: none;
}
.drawer {
  position: sticky;
  bottom: -12px;
  flex: none;
  margin-top: auto;
  max-height: 56vh;
  margin: 0 -12px -12px;
  overflow: auto;
  border-top: 2px solid var(--ink2);
  background: var(--fog0);
  box-shadow: 0 -6px 18px var(--shade);
}
.drawer .close {
  float: right;
}
@media (max-width: 900px) {
  .picture {
    display: none;
  }
  .drawer {
    position: fixed;
    right: 0;
    bottom: var(--strip);
    left: 0;
    z-index: 4;
    margin: 0;
  }
  .list {
    display: flex;
    flex-direction: column;
    gap: 4px;
  }
  .list button {
    min-height: 48px;
    padding: 4px 12px;
    border: 2px solid var(--fog3);
    border-radius: 10px;
    background: var(--white);
    text-align: left;
  }
  .list .here {
    border-color: var(--ink);
  }
}
</style>
