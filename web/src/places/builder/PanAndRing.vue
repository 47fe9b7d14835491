<script setup lang="ts">
/** The pan and the ring the sauce is made on. */
import { NButton, NSelect } from 'naive-ui'
import { computed, ref } from 'vue'
import { millilitres } from '@/parts/format'
import { useSession } from '@/shell/session'
import type { Draft } from './draft'
import WhichPan from './WhichPan.vue'

const props = defineProps<{ draft: Draft }>()
const session = useSession()

const pans = computed(() => [
  { value: '', label: 'No pan named' },
  ...session.pans.map((p) => ({ value: p.name, label: `${p.name} (${millilitres(p.capacity_ml)})` })),
])
const panName = computed(() => props.draft.sheet.value.pan?.name ?? '')
function setPan(name: string): void {
  const pan = session.pans.find((p) => p.name === name)
  void props.draft.move({
    pan: pan
      ? {
          name: pan.name,
          shape: pan.shape,
          diameter_cm: pan.diameter_cm,
          depth_cm: pan.depth_cm,
          width_cm: pan.width_cm,
          tare_g: pan.tare_g,
          reactive: pan.reactive,
          heavy: pan.heavy,
        }
      : null,
  })
}

const whichPan = ref(false)
const burners = computed(() => [
  { value: '', label: 'Gas, 2500 W assumed' },
  ...session.burners.map((b) => ({ value: b.name, label: `${b.name}: ${b.kind}, ${b.watts} W` })),
])
const burnerName = computed(() => {
  const burner = props.draft.sheet.value.burner
  return session.burners.find((b) => b.kind === burner?.kind && b.watts === burner?.watts)?.name ?? ''
})
function setBurner(name: string): void {
  const burner = session.burners.find((b) => b.name === name)
  const to = burner ? { kind: burner.kind, watts: burner.watts } : null
  // A ring decides how fast a rolling boil goes; nothing else of the sauce asks for it.
  const byMinutes = props.draft.sheet.value.steps.some((step: { to?: { minutes?: unknown } }) => step.to?.minutes)
  void (byMinutes ? props.draft.move({ burner: to }) : props.draft.edit((s) => (s.burner = to)))
}
</script>

<template>
  <span class="label">Pan</span>
  <NSelect :value="panName" :options="pans" aria-label="Pan" @update:value="setPan" />
  <NButton secondary block @click="whichPan = true">Which pan is quicker?</NButton>
  <template v-if="session.burners.length">
    <span class="label spaced">Ring</span>
    <NSelect :value="burnerName" :options="burners" aria-label="Ring" @update:value="setBurner" />
  </template>
  <WhichPan v-model:show="whichPan" :sheet="draft.sheet.value" :now="panName" @take="setPan" />
</template>

<style scoped>
.spaced {
  margin-top: 6px;
}
</style>
