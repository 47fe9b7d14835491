<script setup lang="ts">
import { NConfigProvider, NMessageProvider } from 'naive-ui'
import { computed, ref, watch } from 'vue'
import { RouterLink, RouterView, useRoute, useRouter } from 'vue-router'
import { theme } from './design/tokens'
import { places } from './router'
import Alarm from './shell/Alarm.vue'
import HobStrip from './shell/HobStrip.vue'
import KeysSheet from './shell/KeysSheet.vue'
import { onKey } from './shell/keys'
import { useSession } from './shell/session'
import WhoCooks from './shell/WhoCooks.vue'

const session = useSession()
const route = useRoute()
const atStove = computed(() => route.path.startsWith('/stove/'))
const router = useRouter()
const showKeys = ref(false)
const inside = computed(() => Boolean(session.who?.username) && route.path !== '/enter')

onKey((key) => {
  if (!inside.value) return false
  if (key === '?') {
    showKeys.value = true
    return true
  }
  const place = places[Number(key) - 1]
  if (!place) return false
  void router.push(place.path)
  return true
})

const initial = computed(() => (session.who?.called ?? '?').slice(0, 1).toUpperCase())
/** A shared device asks before anything else is done on it; its own page stays within reach. */
const askWho = ref(false)
watch(
  () => inside.value && session.who?.shared && !session.who.called && route.path !== '/kitchen',
  (wanted) => (askWho.value = Boolean(wanted)),
  { immediate: true },
)
</script>

<template>
  <NConfigProvider :theme-overrides="theme" inline-theme-disabled class="whole">
    <!-- At the stove the foot is the big button that goes on: nothing may lie over it. -->
    <NMessageProvider
      :placement="atStove ? 'top' : 'bottom'"
      :container-style="atStove ? { top: '8px' } : { bottom: '76px' }"
      :max="atStove ? 2 : undefined"
    >
      <div v-if="inside" class="shell">
        <a class="skip" href="#content">To the content</a>
        <nav aria-label="Places">
          <RouterLink
            v-for="(place, i) in places"
            :key="place.key"
            :to="place.path"
            :class="{ here: route.path.startsWith(place.path) }"
          >
            <b>{{ i + 1 }}</b>{{ place.name }}
          </RouterLink>
          <span class="rest" />
          <button class="plain keys" title="Keys" aria-label="Show the keys" @click="showKeys = true">
            <b>?</b>Keys
          </button>
          <button
            v-if="session.who?.shared"
            class="plain who"
            :title="`Cooking here: ${session.who.called ?? 'nobody yet'}`"
            @click="askWho = true"
          >
            <b aria-hidden="true">{{ initial }}</b><span class="name">{{ session.who.called ?? 'Who?' }}</span>
          </button>
          <RouterLink
            v-else
            to="/kitchen"
            :title="`${session.who?.called}, ${session.who?.kitchen}`"
            :class="{ here: route.path === '/kitchen' }"
          >
            <b aria-hidden="true">{{ initial }}</b><span class="name">{{ session.who?.called }}</span>
          </RouterLink>
        </nav>
        <Alarm class="rings" />
        <main id="content" tabindex="-1"><RouterView :key="route.path" /></main>
        <HobStrip />
      </div>
      <RouterView v-else />
      <KeysSheet v-model:show="showKeys" />
      <WhoCooks v-if="inside && askWho" v-model:show="askWho" />
    </NMessageProvider>
  </NConfigProvider>
</template>

<style scoped>
.whole,
.shell {
  height: 100%;
}
.shell {
  display: grid;
  grid-template: 'nav rings' auto 'nav main' 1fr 'strip strip' auto / var(--rail) 1fr;
}
nav {
  grid-area: nav;
  display: flex;
  flex-direction: column;
  gap: 4px;
  padding: 10px 6px;
  background: var(--fog2);
  overflow: auto;
}
nav a,
nav button {
  display: flex;
  flex-direction: column;
  align-items: center;
  justify-content: center;
  min-height: 60px;
  border-radius: 10px;
  color: var(--ink);
  font-size: 14px;
  font-weight: 600;
  text-decoration: none;
}
nav b {
  font: 600 18px/1.1 var(--display);
}
nav a:hover,
nav button:hover {
  background: var(--fog1);
}
nav .here {
  background: var(--ink);
  color: var(--white);
}
.name {
  max-width: 100%;
  overflow: hidden;
  text-overflow: ellipsis;
  white-space: nowrap;
}
main:focus {
  outline: none;
}
.rest {
  flex: 1;
}
main {
  grid-area: main;
  min-width: 0;
  overflow: auto;
}
.rings {
  grid-area: rings;
}
.hob-strip {
  grid-area: strip;
  min-width: 0;
}
@media (max-width: 700px) {
  .shell {
    grid-template: 'nav' auto 'rings' auto 'main' 1fr 'strip' auto / 1fr;
  }
  nav {
    flex-direction: row;
    padding: 4px;
  }
  nav a,
  nav button {
    flex: 1;
    min-width: 44px;
    min-height: 46px;
    font-size: 12px;
  }
  nav b {
    font-size: 14px;
  }
  .rest,
  .keys {
    display: none !important;
  }
}
@media print {
  .shell {
    display: block;
  }
}
</style>
