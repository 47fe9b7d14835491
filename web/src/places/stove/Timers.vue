<script setup lang="ts">
/** Timers beside the step's own: what is not the sauce has its minutes too (turn the fish, drain the pasta). */
import { NButton } from 'naive-ui'
import { computed, ref } from 'vue'
import type { Schemas } from '@/api/client'
import type { Doing } from '@/shell/acts'
import { useHob } from '@/shell/hob'
import { clock } from '@/shell/timer'

const props = defineProps<{ batch: Schemas['BatchOut'] }>()
const emit = defineEmits<{ does: [doing: Doing] }>()
const hob = useHob()
const running = computed(() => props.batch.timers.filter((timer) => timer.name !== 'step'))
const adding = ref(false)
const name = ref('')
const minutes = ref('')
const seconds = computed(() => Math.round(60 * Number(minutes.value.replace(',', '.'))))
const fits = computed(() => seconds.value >= 1 && seconds.value <= 24 * 3600)
function start(): void {
  if (!fits.value) return
  const called = name.value.trim() || 'timer'
  emit('does', { kind: 'timer-on', name: called === 'step' ? 'a step' : called, seconds: seconds.value })
  adding.value = false
  name.value = minutes.value = ''
}
const vFocus = { mounted: (el: HTMLElement) => el.focus() }
</script>

<template>
  <section class="timers" aria-label="Other timers">
    <button
      v-for="timer in running"
      :key="timer.name"
      class="one"
      :class="{ over: hob.left({ timers: [timer] })! <= 0 }"
      :aria-label="`${timer.name}: stop it`"
      @click="emit('does', { kind: 'timer-off', name: timer.name })"
    >
      <b>{{ clock(hob.left({ timers: [timer] })!) }}</b> {{ timer.name }}
    </button>
    <form v-if="adding" @submit.prevent="start" @keydown.esc.stop="adding = false">
      <input v-model="name" v-focus maxlength="40" placeholder="turn the fish" aria-label="What the timer is for" />
      <input v-model="minutes" inputmode="decimal" placeholder="5" aria-label="Minutes" class="minutes" />
      <NButton size="large" attr-type="submit" :disabled="!fits">min: start</NButton>
    </form>
    <NButton v-else size="large" quaternary @click="adding = true">Another timer</NButton>
  </section>
</template>

<style scoped>
.timers,
form {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 8px;
}
.one {
  min-height: 56px;
  padding: 0 16px;
  border: 2px solid var(--butter);
  border-radius: 10px;
  background: var(--butter-wash);
  font-size: 18px;
  cursor: pointer;
}
.one b {
  margin-right: 8px;
  font-size: 30px;
}
.over {
  border-color: var(--russet);
  background: var(--russet);
  color: var(--white);
}
input {
  width: 200px;
  min-height: 48px;
  padding: 2px 10px;
  border: 2px solid var(--fog4);
  border-radius: 8px;
  background: var(--white);
  font: 600 18px var(--text);
}
.minutes {
  width: 72px;
  text-align: right;
}
</style>
