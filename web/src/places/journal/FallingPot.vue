<script setup lang="ts">
/** A pot that boils down before the eyes, its spoon beside it: stopped by a press, or the space bar. */
import { useRafFn } from '@vueuse/core'
import { NButton } from 'naive-ui'
import { computed, ref } from 'vue'
import type { Schemas } from '@/api/client'
import SpoonBack from '@/parts/SpoonBack.vue'
import { onKey } from '@/shell/keys'
import PotLevel from './PotLevel.vue'

const props = defineProps<{ pan: Schemas['SideView']; falls: Schemas['Fallen'][]; over: boolean }>()
const emit = defineEmits<{ stop: [seconds: number] }>()
const at = ref(0)
const state = ref<'waits' | 'falls' | 'stopped'>('waits')
const last = computed(() => props.falls.at(-1)!.at_s)
const { pause, resume } = useRafFn(
  ({ delta }) => {
    at.value = Math.min(last.value, at.value + Math.min(delta, 100) / 1000)
    if (at.value >= last.value) stop()
  },
  { immediate: false },
)
function begin(): void {
  state.value = 'falls'
  resume()
}
function stop(): void {
  if (state.value !== 'falls') return
  pause()
  state.value = 'stopped'
  emit('stop', at.value)
}
const now = computed(() => {
  const n = Math.max(
    1,
    props.falls.findIndex((one) => one.at_s >= at.value),
  )
  const [one, next] = [props.falls[n - 1]!, props.falls[n]!]
  const share = Math.min(1, Math.max(0, (at.value - one.at_s) / Math.max(1e-6, next.at_s - one.at_s)))
  const between = (key: 'level_mm' | 'viscosity_pa_s' | 'film_mm') => one[key] + share * (next[key] - one[key])
  return { level: between('level_mm'), viscosity: between('viscosity_pa_s'), film: between('film_mm') }
})
onKey((key) => {
  if (key !== ' ' || props.over) return false
  if (state.value === 'waits') begin()
  else stop()
  return true
})
</script>

<template>
  <div class="falling">
    <PotLevel class="pot" :pan="pan" :level="now.level" :before="falls[0]!.level_mm" blind />
    <SpoonBack class="spoon" :viscosity="now.viscosity" :film-mm="now.film" looks="as it is now" />
    <NButton v-if="state === 'waits'" class="go" size="large" @click="begin">Put it on the fire</NButton>
    <NButton v-else-if="state === 'falls'" class="go" type="primary" size="large" @click="stop">Off the fire</NButton>
  </div>
</template>

<style scoped>
.falling {
  display: grid;
  grid-template: 'pot spoon' auto 'go go' auto / minmax(0, 3fr) minmax(0, 1fr);
  align-items: end;
  gap: 10px 20px;
  max-height: none;
}
.pot {
  grid-area: pot;
  max-height: 300px;
}
.spoon {
  grid-area: spoon;
  max-height: 220px;
}
.go {
  grid-area: go;
  min-height: 72px;
}
</style>
