<script setup lang="ts">
/** The timer of the step: how long it runs, or what is left on it. */
import { computed } from 'vue'
import { clock } from '@/shell/timer'

const props = defineProps<{
  /** Seconds left on the timer that runs; null where none does. */
  left: number | null
  /** Seconds it runs. */
  seconds: number | null
  /** The pot's minutes are told beside: it rings when it may be there. */
  followed?: boolean
  /** There is nothing else to see at the step. */
  alone?: boolean
}>()
defineEmits<{ press: [] }>()
const running = computed(() => props.left !== null)
const words = computed(() => {
  if (running.value) return (props.left ?? 0) <= 0 ? 'over: press to stop' : 'running: press to stop'
  return props.followed ? 'ring when it may be there' : 'start the timer'
})
</script>

<template>
  <button
    v-if="seconds || running"
    class="timer"
    :class="{ running, beside: followed, over: (left ?? 1) <= 0, alone }"
    @click="$emit('press')"
  >
    <b>{{ clock(left ?? seconds ?? 0) }}</b>
    <span>{{ words }}</span>
  </button>
</template>

<style scoped>
.timer {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 0 20px;
  min-height: 84px;
  padding: 6px 22px;
  border: 3px solid var(--ink2);
  border-radius: 14px;
  background: var(--white);
  font-size: 20px;
  text-align: left;
  cursor: pointer;
}
.timer b {
  font-size: 68px;
  line-height: 1;
}
.timer.beside {
  min-height: 64px;
  font-size: 18px;
}
.timer.beside b {
  font-size: 38px;
}
.timer.alone {
  flex: 1;
  flex-direction: column;
  justify-content: center;
  max-height: 340px;
  margin-bottom: 12px;
  font-size: 24px;
}
.timer.alone b {
  font-size: clamp(84px, 13vw, 170px);
}
.timer.running {
  background: var(--butter-wash);
  border-color: var(--butter);
}
.timer.over {
  background: var(--russet);
  border-color: var(--russet);
  color: var(--white);
}
</style>
