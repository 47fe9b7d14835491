<script setup lang="ts">
/** Which spoon does it look like? One for each grade, and optionally a bare one: a liquid; or those given. */
import { computed } from 'vue'
import { useSession } from '@/shell/session'
import { vChoices } from './choices'
import { along } from './ribbon'
import SpoonBack from './SpoonBack.vue'

type Spoon = { key: string; name: string; target_pa_s: number; film_mm: number; looks: string }
const props = defineProps<{ label: string; thin?: boolean; spoons?: Spoon[] }>()
const picked = defineModel<number | null>({ required: true })
const session = useSession()
const shown = computed<Spoon[]>(
  () =>
    props.spoons ?? [
      ...(props.thin
        ? [{ key: 'liquid', name: 'liquid', target_pa_s: 0.015, film_mm: 0.02, looks: 'runs off like milk' }]
        : []),
      ...session.grades,
    ],
)
</script>

<template>
  <div v-choices class="spoons" role="radiogroup" :aria-label="label">
    <button
      v-for="spoon in shown"
      :key="spoon.key"
      type="button"
      role="radio"
      :aria-checked="picked === spoon.target_pa_s"
      :title="spoon.looks"
      @click="picked = spoon.target_pa_s"
    >
      <SpoonBack :viscosity="spoon.target_pa_s" :film-mm="spoon.film_mm" :looks="spoon.looks" />
      <b>{{ spoon.name }}</b>
      <span class="track" aria-hidden="true"><i :style="{ left: `${100 * along(spoon.target_pa_s)}%` }" /></span>
    </button>
  </div>
</template>

<style scoped>
.spoons {
  display: grid;
  grid-template-columns: repeat(auto-fit, minmax(92px, 1fr));
  gap: 8px;
}
button {
  display: flex;
  flex-direction: column;
  align-items: center;
  padding: 4px 2px 8px;
  border: 3px solid var(--fog3);
  border-radius: 12px;
  background: var(--white);
  cursor: pointer;
}
svg {
  height: 108px;
}
.track {
  position: relative;
  width: 80%;
  height: 8px;
  margin-top: 4px;
  border-radius: 4px;
  background: linear-gradient(to right, var(--fog2), var(--fog4));
}
.track i {
  position: absolute;
  top: -4px;
  width: 6px;
  height: 16px;
  margin-left: -3px;
  border-radius: 3px;
  background: var(--russet);
}
b {
  font-size: 18px;
}
[aria-checked='true'] {
  border-color: var(--russet);
  background: var(--russet-wash);
}
@media (max-width: 700px) {
  .spoons {
    grid-template-columns: repeat(auto-fit, minmax(70px, 1fr));
  }
  svg {
    height: 76px;
  }
  b {
    font-size: 16px;
  }
}
</style>
