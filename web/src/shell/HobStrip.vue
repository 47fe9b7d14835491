<script setup lang="ts">
/** Along the foot of every place: one tile for each pot that is on. */
import { onMounted } from 'vue'
import { RouterLink, useRoute } from 'vue-router'
import { useHob } from './hob'
import { clock } from './timer'

const hob = useHob()
const route = useRoute()
onMounted(() => void hob.look().catch(() => undefined))
</script>

<template>
  <footer class="hob-strip" :class="{ bare: !hob.pots.length }" aria-label="Pots on now">
    <p v-if="!hob.pots.length" class="quiet">No pot is on. Start one from a saved sauce.</p>
    <RouterLink
      v-for="pot in hob.pots"
      :key="pot.id"
      class="tile"
      :class="{
        here: route.path === `/stove/${pot.id}`,
        over: (hob.left(pot) ?? 1) <= 0,
        timed: hob.left(pot) !== null,
      }"
      :to="`/stove/${pot.id}`"
    >
      <span class="what">
        <b>{{ pot.name }}</b>
        <span>{{ pot.step < pot.steps ? `${pot.step + 1}/${pot.steps} ` : '' }}{{ pot.title }}</span>
      </span>
      <span v-if="hob.left(pot) !== null" class="time">
        {{ clock(hob.left(pot)!) }}<small v-if="hob.left(pot)! <= 0">over</small>
      </span>
    </RouterLink>
  </footer>
</template>

<style scoped>
.hob-strip {
  display: flex;
  gap: 8px;
  align-items: center;
  height: var(--strip);
  padding: 6px var(--gap);
  overflow-x: auto;
  background: var(--fog2);
  border-top: 1px solid var(--fog3);
}
.bare {
  height: 40px;
  font-size: 15px;
}
.tile {
  display: flex;
  flex: 0 1 320px;
  min-width: 200px;
  min-height: 50px;
  align-items: center;
  justify-content: space-between;
  gap: 10px;
  padding: 4px 12px;
  border-radius: 10px;
  border: 2px solid var(--fog3);
  background: var(--white);
  color: var(--ink);
  text-decoration: none;
}
.what {
  display: flex;
  flex-direction: column;
  min-width: 0;
  line-height: 1.2;
  font-size: 14px;
}
.what > * {
  overflow: hidden;
  text-overflow: ellipsis;
  white-space: nowrap;
}
.time {
  font: 700 24px var(--text);
  font-variant-numeric: tabular-nums;
}
.time small {
  margin-left: 4px;
  font-size: 13px;
}
.timed {
  background: var(--butter-wash);
  border-color: var(--butter);
}
.over {
  background: var(--russet);
  border-color: var(--russet);
  color: var(--white);
}
.here {
  box-shadow: inset 0 -4px 0 var(--russet);
}
</style>
