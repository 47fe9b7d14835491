<script setup lang="ts">
/** Above whatever is looked at, and covering none of it: the pots whose timer has run out. */
import { computed } from 'vue'
import { RouterLink, useRoute } from 'vue-router'
import { useAlarm } from './alarm'

const route = useRoute()
const { over } = useAlarm()
/** The pot in front shows it by its own timer. */
const elsewhere = computed(() =>
  over.value.filter((one) => one.timer.name !== 'step' || route.path !== `/stove/${one.pot.id}`),
)
</script>

<template>
  <p v-if="elsewhere.length" class="alarm" role="alert">
    <RouterLink v-for="one in elsewhere" :key="one.pot.id + one.timer.name" :to="`/stove/${one.pot.id}`"
      ><b>{{ one.pot.name }}</b> {{ one.timer.name === 'step' ? 'wants its next step' : one.timer.name }}
    </RouterLink>
  </p>
</template>

<style scoped>
.alarm {
  display: flex;
  flex-wrap: wrap;
  gap: 4px 24px;
  padding: 4px 20px;
  background: var(--russet);
  color: var(--white);
  font-size: 20px;
}
a {
  display: inline-flex;
  align-items: center;
  gap: 8px;
  min-height: 44px;
}
@media print {
  .alarm {
    display: none;
  }
}
</style>
