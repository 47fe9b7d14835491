<script setup lang="ts">
/** The first minute of a kitchen: what it has, on one screen, ticked ready; it can be skipped. */
import { NButton } from 'naive-ui'
import { onMounted, ref } from 'vue'
import { useRouter } from 'vue-router'
import { api, ask, type Schemas } from '@/api/client'
import { vChoices } from '@/parts/choices'
import { USUAL } from '@/parts/ways'
import { useForm } from '@/shell/form'
import { useSession } from '@/shell/session'
import WaysFields from '../kitchen/WaysFields.vue'

const session = useSession()
const router = useRouter()
const { trouble, busy, run } = useForm()
const usual = ref<Schemas['UsualOut'] | null>(null)
const pans = ref<Set<string>>(new Set())
const gear = ref<Set<string>>(new Set())
const hob = ref<string | null>('gas')
const written = ref<Schemas['KitchenWays']>({ ...(session.who?.ways ?? USUAL) })

onMounted(async () => {
  usual.value = await ask(api.GET('/api/larder/usual'))
  pans.value = new Set(usual.value.pans.filter((one) => one.ticked).map((one) => one.key))
  gear.value = new Set(usual.value.gear.filter((one) => one.ticked).map((one) => one.kind))
})
function toggle(among: Set<string>, key: string): Set<string> {
  const next = new Set(among)
  if (!next.delete(key)) next.add(key)
  return next
}
const begin = (skip: boolean) =>
  run(async () => {
    if (!skip) await ask(api.PUT('/api/accounts/ways', { body: written.value }))
    const body = skip
      ? { pans: [], hob: null, gear: [] }
      : { pans: [...pans.value], hob: hob.value, gear: [...gear.value] }
    await ask(api.POST('/api/larder/begin', { body }))
    await session.reload()
    // A sauce worked through, to look at and to change: nothing is saved until it is.
    await router.push({ path: '/sauces/new', query: { start: 'White sauce', first: '1' } })
  })
</script>

<template>
  <div class="begin">
    <header>
      <h1>What does {{ session.who?.kitchen ?? 'this kitchen' }} have?</h1>
      <p>The usual is ticked. Pans and rings decide minutes and dip marks; all of it can be changed in the larder.</p>
    </header>
    <template v-if="usual">
      <section aria-labelledby="begin-pans">
        <h2 id="begin-pans">Pans and dishes</h2>
        <div class="chips">
          <button
            v-for="pan in usual.pans"
            :key="pan.key"
            class="chip"
            :aria-pressed="pans.has(pan.key)"
            @click="pans = toggle(pans, pan.key)"
          >
            {{ pans.has(pan.key) ? '✓ ' : '' }}{{ pan.name }}
          </button>
        </div>
      </section>
      <section aria-labelledby="begin-rings">
        <h2 id="begin-rings">Rings</h2>
        <div v-choices class="chips" role="radiogroup" aria-labelledby="begin-rings">
          <button
            v-for="one in usual.hobs"
            :key="one.key"
            class="chip"
            role="radio"
            :aria-checked="hob === one.key"
            @click="hob = one.key"
          >
            {{ one.name }}
          </button>
        </div>
      </section>
      <section aria-labelledby="begin-gear">
        <h2 id="begin-gear">And</h2>
        <div class="chips">
          <button
            v-for="one in usual.gear"
            :key="one.kind"
            class="chip"
            :aria-pressed="gear.has(one.kind)"
            @click="gear = toggle(gear, one.kind)"
          >
            {{ gear.has(one.kind) ? '✓ ' : '' }}{{ one.name }}
          </button>
        </div>
      </section>
      <section aria-labelledby="begin-ways">
        <h2 id="begin-ways">Spoons and figures</h2>
        <WaysFields :ways="written" @change="written = { ...written, ...$event }" />
      </section>
      <p v-if="trouble" class="problem" role="alert">{{ trouble }}</p>
      <footer>
        <NButton type="primary" size="large" :loading="busy" @click="begin(false)">So it is: show me a sauce</NButton>
        <NButton size="large" :disabled="busy" @click="begin(true)">Later</NButton>
      </footer>
    </template>
  </div>
</template>

<style scoped>
.begin {
  display: grid;
  grid-template-columns: repeat(auto-fit, minmax(min(100%, 420px), 1fr));
  gap: 12px 36px;
  max-width: 1200px;
  padding: 22px 24px 28px;
}
header,
footer,
.problem {
  grid-column: 1 / -1;
}
h1 {
  font-size: 32px;
}
h2 {
  margin-bottom: 8px;
  font-size: 20px;
}
.chips {
  display: flex;
  flex-wrap: wrap;
  gap: 8px;
}
.chips .chip {
  min-height: 48px;
}
footer {
  display: flex;
  flex-wrap: wrap;
  gap: 12px;
}
</style>
