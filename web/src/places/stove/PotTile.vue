<script setup lang="ts">
/** A pot on the map of the hob: its step, its timer, how it waits, whose it is. */
import { computed } from 'vue'
import { RouterLink } from 'vue-router'
import { useHob, type Line } from '@/shell/hob'
import { clock } from '@/shell/timer'
import { waiting } from '@/shell/waiting'

const props = defineProps<{ pot: Line; first: boolean }>()
const hob = useHob()
const left = computed(() => hob.left(props.pot))
</script>

<template>
  <RouterLink class="pot" :class="{ turn: first, over: (left ?? 1) <= 0 }" :to="`/stove/${pot.id}`">
    <b>{{ pot.name }}</b>
    <span v-if="left !== null" class="time">{{ clock(left) }}</span>
    <span>{{ pot.title }}</span>
    <small v-if="pot.waits">{{ waiting(pot.waits) }}</small>
    <small v-if="pot.pan || pot.cook">{{ [pot.pan, pot.cook].filter(Boolean).join(' · ') }}</small>
  </RouterLink>
</template>

<style scoped>
.pot {
  position: relative;
  display: flex;
  flex-direction: column;
  width: min(100%, 300px);
  min-height: 64px;
  padding: 8px 14px;
  border: 3px solid var(--fog3);
  border-radius: 12px;
  background: var(--white);
  color: var(--ink);
  text-decoration: none;
  font-size: 17px;
}
.time {
  font: 750 34px/1.1 var(--text);
  font-variant-numeric: tabular-nums;
}
.turn {
  border-color: var(--russet);
}
.turn::before {
  content: 'first';
  position: absolute;
  top: -12px;
  right: 10px;
  padding: 0 10px;
  border-radius: 8px;
  background: var(--russet);
  color: var(--white);
  font-size: 16px;
}
.over {
  background: var(--russet-wash);
}
@media (max-width: 700px) {
  .pot {
    padding: 6px 8px;
    font-size: 16px;
  }
}
</style>
