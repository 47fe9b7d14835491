<script setup lang="ts">
/** The pots on now; nothing on yet says how to start. */
import { NButton } from 'naive-ui'
import { onMounted, ref } from 'vue'
import { RouterLink, useRouter } from 'vue-router'
import { useHob } from '@/shell/hob'

const hob = useHob()
const router = useRouter()
const looked = ref(false)
onMounted(async () => {
  await hob.look().catch(() => undefined)
  looked.value = true
  const only = hob.pots.length === 1 ? hob.pots[0] : undefined
  if (only) void router.replace(`/stove/${only.id}`)
})
</script>

<template>
  <div class="place">
    <h1>Stove</h1>
    <div v-if="looked && !hob.pots.length" class="empty">
      <p>
        No pot is on. Pick a saved sauce and press Cook: its steps come one at a time, with timers that keep running
        when you look away.
      </p>
      <NButton type="primary" size="large" @click="router.push('/sauces')">Pick a sauce</NButton>
    </div>
    <RouterLink v-for="pot in hob.pots" :key="pot.id" class="pot sheet" :to="`/stove/${pot.id}`">
      <h2>{{ pot.name }}</h2>
      <p>
        Step {{ Math.min(pot.step + 1, pot.steps) }} of {{ pot.steps }}: <b>{{ pot.title }}</b>
      </p>
      <p class="quiet">{{ pot.cue }}</p>
    </RouterLink>
  </div>
</template>

<style scoped>
.place {
  display: flex;
  flex-direction: column;
  gap: 12px;
  max-width: 900px;
  padding: 16px 20px;
}
h1 {
  font-size: 30px;
}
.empty {
  display: flex;
  flex-direction: column;
  align-items: flex-start;
  gap: 16px;
  font-size: 20px;
}
.pot {
  padding: 16px 20px;
  color: inherit;
  text-decoration: none;
  font-size: 18px;
}
</style>
