<script setup lang="ts">
/** How far the planning is: what it works on, what it has, what cannot be beaten. */
import { NButton } from 'naive-ui'
import { computed } from 'vue'
import { fixed } from '@/parts/ways'
import { minutesOf, type RunUpOpen } from './run-up'

const props = defineProps<{ open: RunUpOpen }>()
const words: Record<string, string> = {
  late: 'looking for a plan that is in time',
  harmed: 'keeping everything within its limits',
  suffers: 'freshness of what suffers',
  waits: 'less waiting',
  begin: 'a later start',
  mending: 'trying changes that mend it',
}
const told = computed(() => {
  const progress = props.open.progress.value?.progress as
    | {
        stage?: string
        seconds?: number
        first_s?: number
        reached?: Record<string, number>
        bounds?: Record<string, number>
        tried?: number
        of?: number
      }
    | undefined
  return progress ?? {}
})
const waits = computed(() => props.open.progress.value?.state === 'waiting')
const stage = computed(() => told.value.stage ?? '')
const value = computed(() => told.value.reached?.[stage.value])
const bound = computed(() => told.value.bounds?.[stage.value])
const shown = computed(() => stage.value === 'suffers' || stage.value === 'waits' || stage.value === 'harmed')
</script>

<template>
  <div class="progress" role="status">
    <span class="spin" aria-hidden="true"></span>
    <p>
      <b>Planning</b>: {{ words[stage] ?? (waits ? 'waits for its turn' : 'reading the service')
      }}<template v-if="shown && value !== undefined">
        · {{ minutesOf(value) }} so far<template v-if="bound !== undefined"
          >, no better than {{ minutesOf(bound) }}</template
        ></template
      ><template v-if="told.of"> · {{ told.tried }} of {{ told.of }}</template
      ><template v-if="told.first_s !== undefined"> · first plan after {{ fixed(told.first_s, 1) }} s</template>
    </p>
    <NButton @click="open.cancel()">Stop, this will do</NButton>
  </div>
</template>

<style scoped>
.progress {
  display: flex;
  align-items: center;
  gap: 12px;
  padding: 4px 12px;
  border-radius: 10px;
  background: var(--butter-wash);
}
p {
  flex: 1;
}
.spin {
  width: 18px;
  height: 18px;
  border: 3px solid var(--butter);
  border-top-color: var(--ink);
  border-radius: 50%;
  animation: turn 1s linear infinite;
}
@keyframes turn {
  to {
    transform: rotate(360deg);
  }
}
</style>
