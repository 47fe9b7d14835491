<script setup lang="ts">
/** A pot that boils down: the minutes left, as the biggest thing there is, and its picture. */
import { computed } from 'vue'
import type { Schemas } from '@/api/client'
import { grams, scaleReads } from '@/parts/format'
import WayPicture from '@/parts/WayPicture.vue'
import { useSession } from '@/shell/session'

const props = defineProps<{
  watched: Schemas['Watched']
  device?: Schemas['DeviceOut']
  /** Without a network: minutes since the server last said anything. */
  ago?: number | null
}>()
defineEmits<{ level: [mm: number]; back: [past: Schemas['Past']] }>()
const session = useSession()
const whole = (value: number) => (value < 10 ? Math.round(2 * value) / 2 : Math.round(value))
const left = computed(() => props.watched.minutes_left)
const there = computed(() => Boolean(left.value && left.value.value <= 0.25))
const reads = computed(() => props.device?.value ?? null)
const how = computed(() => {
  const { low, high } = props.watched.viscosity_pa_s
  const names = [low, high].map((eta) => session.grades.filter((one) => eta >= one.low_pa_s).at(-1)?.name ?? 'liquid')
  return names[0] === names[1] ? names[0] : `${names[0]} to ${names[1]}`
})
</script>

<template>
  <section class="watching" :class="{ old: typeof ago === 'number' }" aria-label="The pot now">
    <p v-if="typeof ago === 'number'" class="ago">
      Without a network: heard of {{ ago < 1 ? 'just now' : `${Math.round(ago)} min ago` }}. By the clock, and what you
      say here.
    </p>
    <div class="figures" aria-live="polite">
      <p class="left">
        <template v-if="watched.past"
          ><b>{{ Math.round(watched.past.grams) }}<small>g</small></b
          ><span>past where it stops: as much hot water brings it back</span
          ><button class="press water" @click="$emit('back', watched.past)">
            {{ grams(watched.past.grams) }} of water is in
          </button></template
        >
        <template v-else-if="there"><b>Now</b><span>it is where it stops</span></template>
        <template v-else-if="left"
          ><b>{{ whole(left.value) }}<small>min</small></b
          ><span>{{ whole(left.low) }} to {{ whole(left.high) }} min left</span></template
        >
        <template v-else
          ><b>{{ Math.round(watched.mass_g.value) }}<small>g</small></b
          ><span
            >in the pot{{ watched.scale_g === null ? '' : `: ${scaleReads(watched.scale_g)} with the pan` }}</span
          ></template
        >
      </p>
      <dl>
        <template v-if="watched.boils_in_min > 0.2">
          <dt>boils in about</dt>
          <dd>{{ whole(watched.boils_in_min) }} min</dd>
        </template>
        <template v-if="reads !== null">
          <dt>on the scale</dt>
          <dd>{{ scaleReads(reads) }}</dd>
        </template>
        <template v-if="watched.goal">
          <dt>stop at</dt>
          <dd>
            {{ watched.goal.scale_g === null ? '' : `${scaleReads(watched.goal.scale_g)} with the pan, `
            }}{{ watched.goal.level_mm < 1 ? 'a film on the floor' : `dip ${Math.round(watched.goal.level_mm)} mm` }}
          </dd>
        </template>
        <dt>left of it</dt>
        <dd>{{ Math.round(100 * watched.share_left.value) }} %</dd>
        <dt>thick now</dt>
        <dd>{{ how }}</dd>
      </dl>
    </div>
    <p v-for="note in watched.notes" :key="note" class="warning" role="alert">{{ note }}</p>
    <WayPicture class="picture" :watched="watched" presses @level="$emit('level', $event)" />
    <p class="quiet small">
      {{ watched.looked ? `${watched.looked} readings so far.` : 'From the plan alone: nothing was seen of it yet.' }}
      Press the pot where its level stands.{{ watched.scale_g === null ? '' : ' The marks are weights with the pan.' }}
      An estimate: stop by the look.
    </p>
  </section>
</template>

<style scoped>
.watching {
  display: flex;
  flex-direction: column;
  gap: 8px;
  min-height: 0;
}
.figures {
  display: flex;
  flex-wrap: wrap;
  align-items: flex-end;
  gap: 4px 28px;
}
.left {
  display: flex;
  flex-direction: column;
  font-size: 20px;
}
.left b {
  font-size: 104px;
  line-height: 0.95;
  font-weight: 750;
}
.left small {
  margin-left: 8px;
  font-size: 40px;
}
dl {
  display: grid;
  grid-template-columns: auto auto;
  gap: 0 14px;
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
.water {
  margin-top: 6px;
}
.picture {
  flex: 1;
  min-height: 240px;
}
.small {
  font-size: 16px;
}
.ago {
  font-size: 18px;
  font-weight: 600;
}
.old :is(.left, dd) {
  color: var(--ink2);
}
.warning {
  font-size: 20px;
}
@media (max-width: 800px) {
  .left b {
    font-size: 76px;
  }
}
</style>
