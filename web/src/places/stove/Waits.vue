<script setup lang="ts">
/** A finished sauce that waits: how warm and thick it is by now, and what brings it back. */
import type { Schemas } from '@/api/client'
import { degrees, temperature, toShown } from '@/parts/ways'
import { useSession } from '@/shell/session'

defineProps<{ waits: Schemas['Held'] }>()
const session = useSession()
</script>

<template>
  <section class="waits" :class="{ below: waits.below_rule }" aria-label="How it stands there">
    <p v-if="waits.let_down_ml >= 1" class="big">
      <b>{{ Math.round(waits.let_down_ml) }}<small>mL</small></b>
      <span>of hot liquid brings it back</span>
    </p>
    <p v-else class="big">
      <b
        >{{ Math.round(toShown(waits.temperature_c)) }}<small>{{ degrees() }}</small></b
      >
      <span>about; nothing to let in yet</span>
    </p>
    <dl>
      <dt>waits since</dt>
      <dd>{{ Math.round(waits.minutes) }} min</dd>
      <dt v-if="waits.let_down_ml >= 1">about</dt>
      <dd v-if="waits.let_down_ml >= 1">{{ temperature(waits.temperature_c) }}</dd>
      <dt>thick now</dt>
      <dd>{{ session.gradeName(waits.grade) || 'no grade' }}</dd>
    </dl>
    <p v-if="waits.below_rule" class="warning">{{ waits.words }}</p>
  </section>
</template>

<style scoped>
.waits {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 4px 28px;
  padding: 8px 16px;
  border-radius: 12px;
  background: var(--white);
  border: 1px solid var(--fog2);
}
.big {
  display: flex;
  align-items: baseline;
  gap: 10px;
  font-size: 18px;
}
.big b {
  font-size: 52px;
  line-height: 1.1;
}
.big small {
  margin-left: 4px;
  font-size: 22px;
}
dl {
  display: grid;
  grid-template-columns: repeat(3, auto auto);
  gap: 0 12px;
  margin: 0;
  font-size: 18px;
}
dt {
  color: var(--ink2);
}
dd {
  margin: 0;
  font-weight: 700;
}
.warning {
  flex-basis: 100%;
}
@media (max-width: 700px) {
  dl {
    grid-template-columns: auto auto;
  }
}
</style>
