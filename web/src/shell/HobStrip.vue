<script setup lang="ts">
/** Along the foot of every place: one tile for each pot that is on, and what rings. */
import { computed, onMounted, watch } from 'vue'
import { RouterLink, useRoute } from 'vue-router'
import { useActs } from './acts'
import { useMuted } from './alarm'
import { useHob } from './hob'
import { useListen } from './listen'
import { usePhotos } from './photos'
import { clock } from './timer'
import { waiting } from './waiting'

const hob = useHob()
const acts = useActs()
const photos = usePhotos()
const others = computed(() => [...new Set([...acts.others, ...photos.others])])
const listen = useListen()
const route = useRoute()
const muted = useMuted()
onMounted(() => {
  void hob.look().catch(() => (acts.offline = true))
  void acts.send()
  listen.begin()
})
listen.onChanged((id) => {
  void hob.look().catch(() => undefined)
  void acts.send()
  // The pot in front looks for itself. The others are kept up to date for a reload without the server, in
  // their own time: twenty screens do not ask for the same pot at once.
  if (id !== null && route.path !== `/stove/${id}`) setTimeout(() => void keep(id), 2000 + 6000 * Math.random())
})
/** What was put away stands on no ring: it waits at the end to be written down. */
const inOrder = computed(() => [...hob.pots].sort((a, b) => Number(a.put_away) - Number(b.put_away)))
const keep = (id: number) => acts.load(id).catch(() => undefined)
watch(
  () => hob.pots.map((pot) => pot.id).join(),
  async () => {
    for (const pot of hob.pots) if (!acts.shown(pot.id)) await keep(pot.id)
  },
  { immediate: true },
)
</script>

<template>
  <footer class="hob-strip" :class="{ bare: !hob.pots.length }" aria-label="Pots on now">
    <p v-if="acts.offline" class="away" role="status">
      {{ acts.signedOut ? 'Signed out: sign in again.' : 'No network: cooking goes on.'
      }}<template v-if="acts.waiting"> {{ acts.waiting }} kept to send.</template>
    </p>
    <p v-if="others.length" class="away" role="status">
      Kept on this device until {{ others.join(', ') }} signs in again: what was done at the stove.
    </p>
    <p v-if="!hob.pots.length && !acts.offline" class="quiet">No pot is on. Start one from a saved sauce.</p>
    <RouterLink v-if="hob.pots.length" class="map" to="/stove?hob">Hob</RouterLink>
    <RouterLink
      v-for="pot in inOrder"
      :key="pot.id"
      class="tile"
      :class="{
        put: pot.put_away,
        here: route.path === `/stove/${pot.id}`,
        over: (hob.left(pot) ?? 1) <= 0,
        timed: hob.left(pot) !== null,
        hands: pot.hands === 'all',
      }"
      :to="`/stove/${pot.id}`"
    >
      <span class="what">
        <b>{{ pot.name }}</b>
        <span v-if="pot.put_away">put away, still to be written down</span>
        <span v-else-if="pot.waits">{{ waiting(pot.waits) }}</span>
        <span v-else
          >{{ pot.kind === 'sauce' && pot.step < pot.steps ? `${pot.step + 1}/${pot.steps} ` : ''
          }}{{ pot.title }}</span
        >
        <span v-if="pot.ring || pot.cook" class="where">{{
          [pot.ring, pot.pan, pot.cook].filter(Boolean).join(' · ')
        }}</span>
        <span v-if="pot.clash" class="clash">{{ pot.clash }}</span>
      </span>
      <span v-if="hob.left(pot) !== null" class="time">
        {{ clock(hob.left(pot)!) }}<small v-if="hob.left(pot)! <= 0">over</small>
      </span>
    </RouterLink>
    <button v-if="hob.pots.length" class="mute" :aria-pressed="muted" @click="muted = !muted">
      {{ muted ? 'Sound off' : 'Sound on' }}
    </button>
  </footer>
</template>

<style scoped>
.hob-strip {
  position: relative;
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
  font-size: 16px;
}
.away {
  padding: 4px 12px;
  border: 2px dashed var(--ink2);
  border-radius: 10px;
  font-size: 16px;
  white-space: nowrap;
}
.tile.put {
  opacity: 0.75;
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
.map {
  display: inline-flex;
  flex: none;
  align-items: center;
  min-height: 50px;
  padding: 0 14px;
  border: 2px solid var(--fog4);
  border-radius: 10px;
  color: var(--ink);
  font-weight: 700;
  text-decoration: none;
}
.where {
  color: var(--ink2);
  font-size: 16px;
}
.over .where {
  color: inherit;
}
.hands {
  border-left: 8px solid var(--russet);
}
.what {
  display: flex;
  flex-direction: column;
  min-width: 0;
  line-height: 1.2;
  font-size: 16px;
}
.what > * {
  overflow: hidden;
  text-overflow: ellipsis;
  white-space: nowrap;
}
.clash {
  color: var(--russet);
  font-weight: 600;
  font-size: 16px;
}
.over .clash {
  color: inherit;
}
.time {
  font: 700 24px var(--text);
  font-variant-numeric: tabular-nums;
}
.time small {
  margin-left: 4px;
  font-size: 16px;
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
.mute {
  flex: none;
  min-height: 44px;
  margin-left: auto;
  padding: 0 14px;
  border: 2px solid var(--fog4);
  border-radius: 10px;
  background: none;
  font-weight: 600;
  cursor: pointer;
}
</style>
