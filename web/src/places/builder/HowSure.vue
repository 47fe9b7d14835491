<script setup lang="ts">
/** Beside the ribbon: how surely the pot lands in its grade, what makes the doubt, what mends it. */
import { useDebounceFn } from '@vueuse/core'
import { NButton } from 'naive-ui'
import { computed, ref, watch } from 'vue'
import { api, ask, type Schemas, type Sheet } from '@/api/client'
import { bands } from '@/parts/ribbon'
import { useSession } from '@/shell/session'

const props = defineProps<{ sheet: Sheet }>()
const emit = defineEmits<{ take: [sheet: Sheet, changes: string[]] }>()
const session = useSession()

const sure = ref<Schemas['Sure'] | null>(null)
/** While an edit is being worked out, what is shown is of the sauce before it. */
const behind = ref(true)
const open = ref(false)
let asked = 0
const look = useDebounceFn(async () => {
  const mine = ++asked
  try {
    const body = { sheet: props.sheet as Record<string, unknown>, mends: open.value }
    const found = await ask(api.POST('/api/work/sure', { body }))
    if (mine !== asked) return
    sure.value = found
    behind.value = false
  } catch {
    // What is wrong with the sheet is told where it is typed; nothing is known meanwhile.
    if (mine === asked) sure.value = null
  }
}, 500)
// What would help is worked out for whoever asks.
watch(
  [() => props.sheet, open],
  ([, now], [, before]) => {
    if (before && !now) return
    behind.value = true
    void look()
  },
  { immediate: true },
)

const percent = (chance: number) => (chance > 0.99 ? 'over 99 %' : `${Math.round(100 * chance)} %`)
const width = 360
const tallest = computed(() => Math.max(0.01, ...(sure.value?.by_grade ?? []).map((one) => one.chance)))
const bars = computed(() =>
  bands(session.grades).map((band) => {
    const chance = sure.value?.by_grade.find((one) => one.grade === (band.key || 'liquid'))?.chance ?? 0
    const tall = (26 * chance) / tallest.value
    return { ...band, chance, tall, x: band.from * width, width: Math.max(0, (band.to - band.from) * width - 1.5) }
  }),
)
const turned = computed(() => sure.value?.by_grade.find((one) => one.grade === 'turned')?.chance ?? 0)
const said = computed(() =>
  bars.value
    .filter((bar) => bar.chance >= 0.01)
    .map((bar) => `${bar.name || 'liquid'} ${percent(bar.chance)}`)
    .join(', '),
)
const mends = computed(() =>
  sure.value ? [...sure.value.mends, ...(sure.value.surest ? [sure.value.surest] : [])] : [],
)
</script>

<template>
  <section v-if="sure" class="sure" :class="{ behind }" aria-label="How sure">
    <svg :viewBox="`0 0 ${width} 30`" role="img" :aria-label="`Chances: ${said}`">
      <g v-for="bar in bars" :key="bar.key">
        <rect
          :x="bar.x"
          :y="28 - bar.tall"
          :width="bar.width"
          :height="bar.tall"
          :fill="bar.key === sure.grade ? 'var(--russet)' : 'var(--fog3)'"
        />
        <rect :x="bar.x" y="28" :width="bar.width" height="1.5" fill="var(--fog3)" />
      </g>
    </svg>
    <button class="plain" :aria-expanded="open" @click="open = !open">
      <b>{{ percent(sure.chance) }}</b> that it lands in {{ session.gradeName(sure.grade).toLowerCase() }}
      <span class="quiet">{{ open ? 'Less' : 'What would help?' }}</span>
    </button>
    <p v-if="turned >= 0.01" class="warning">{{ percent(turned) }} that it turns: oily, split or boiled dry.</p>
    <template v-if="open">
      <ul class="mends">
        <li v-for="mend in mends" :key="mend.do">
          <b>{{ percent(mend.chance) }}</b>
          <span>{{ mend.do }}</span>
          <NButton
            v-if="mend.sheet"
            size="small"
            :aria-label="`Do it: ${mend.do}`"
            @click="emit('take', mend.sheet, [mend.do])"
            >Do it</NButton
          >
        </li>
      </ul>
      <p class="label">What makes the doubt</p>
      <ul class="doubts">
        <li v-for="doubt in sure.doubts" :key="doubt.name">
          <i :style="{ width: `${Math.round(100 * doubt.share)}%` }" />
          <span>{{ percent(doubt.share) }} {{ doubt.name }}</span>
        </li>
      </ul>
      <p class="quiet small">Played over and over, everything a little off each time.</p>
    </template>
  </section>
</template>

<style scoped>
.behind {
  opacity: 0.55;
}
svg {
  display: block;
  width: 100%;
  height: auto;
}
button.plain {
  display: flex;
  flex-wrap: wrap;
  align-items: baseline;
  gap: 0 6px;
  width: 100%;
  min-height: 44px;
  font-size: 16px;
  text-align: left;
  cursor: pointer;
}
button b {
  font-size: 22px;
}
button .quiet {
  margin-left: auto;
  text-decoration: underline;
}
ul {
  margin: 0 0 6px;
  padding: 0;
  list-style: none;
}
.mends li {
  display: grid;
  grid-template-columns: 64px 1fr auto;
  align-items: center;
  gap: 8px;
  min-height: 44px;
  border-top: 1px solid var(--fog3);
}
.mends b {
  font-size: 18px;
  text-align: right;
}
.doubts li {
  position: relative;
  padding: 3px 6px;
}
.doubts i {
  position: absolute;
  inset: 0 auto 0 0;
  background: var(--butter-wash);
}
.doubts span {
  position: relative;
}
.small {
  font-size: 14px;
}
</style>
