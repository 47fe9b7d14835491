<script setup lang="ts">
/** What the probe tells of the step: how warm, how warm it should be, what to do. */
import { computed } from 'vue'
import type { Schemas } from '@/api/client'
import { degrees, fixed, temperature, toShown } from '@/parts/ways'

const props = defineProps<{ probed: Schemas['Probed'] }>()
const asked = computed(() => {
  const { from_c: from, to_c: to } = props.probed
  if (from !== null && to !== null) return `${Math.round(toShown(from))} to ${temperature(to)}`
  if (from !== null) return `${temperature(from)} or more`
  return to === null ? '' : `${temperature(to)} at most`
})
/** On a bar from the fridge to the boil. */
const share = (celsius: number) => `${Math.min(100, Math.max(0, celsius))}%`
</script>

<template>
  <section class="probe" :class="probed.how" aria-label="What the probe tells" aria-live="polite">
    <p class="at">
      <b
        >{{ fixed(toShown(probed.at_c), 1) }}<small>{{ degrees() }}</small></b
      >
      <span>{{ asked }}</span>
    </p>
    <div class="bar" aria-hidden="true">
      <i
        class="zone"
        :style="{ left: share(probed.from_c ?? 0), right: `calc(100% - ${share(probed.to_c ?? 100)})` }"
      />
      <i class="here" :style="{ left: share(probed.at_c) }" />
    </div>
    <p class="do">{{ probed.words }}</p>
  </section>
</template>

<style scoped>
.probe {
  display: flex;
  flex-direction: column;
  gap: 6px;
  padding: 10px 14px;
  border: 3px solid var(--fog4);
  border-radius: 12px;
  background: var(--white);
}
.there {
  border-color: var(--leaf);
}
.above {
  border-color: var(--russet);
  background: var(--russet-wash);
}
.at {
  display: flex;
  align-items: baseline;
  justify-content: space-between;
  gap: 12px;
  font-size: 18px;
}
.at b {
  font-size: 64px;
  line-height: 1;
}
.at small {
  margin-left: 4px;
  font-size: 28px;
}
.bar {
  position: relative;
  height: 14px;
  border-radius: 7px;
  background: var(--fog2);
}
.zone {
  position: absolute;
  top: 0;
  bottom: 0;
  border-radius: 7px;
  background: var(--leaf);
}
.here {
  position: absolute;
  top: -5px;
  width: 6px;
  height: 24px;
  margin-left: -3px;
  border-radius: 3px;
  background: var(--ink);
}
.do {
  font-size: 20px;
  font-weight: 600;
}
</style>
