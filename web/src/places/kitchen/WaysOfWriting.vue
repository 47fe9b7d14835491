<script setup lang="ts">
/** How this kitchen writes figures and money, in every place and on paper. */
import { ref } from 'vue'
import { api, ask, type Schemas } from '@/api/client'
import TextField from '@/parts/TextField.vue'
import WaysFields from './WaysFields.vue'
import { useForm } from '@/shell/form'
import { useSession } from '@/shell/session'

const session = useSession()
const form = useForm()
/** As it is chosen here: two quick presses are both meant, whatever is answered between them. */
const now = ref<Schemas['KitchenWays'] | null>(session.who?.ways ?? null)
const currency = ref(now.value?.currency ?? '')
async function set(change: Partial<Schemas['KitchenWays']>): Promise<void> {
  if (!now.value) return
  const body = { ...now.value, ...change }
  now.value = body
  const mine = ++pressed
  // One after the other: the last press is the one that stands.
  last = last.then(async () => {
    const done = await form.run(() => ask(api.PUT('/api/accounts/ways', { body })))
    if (!done) now.value = session.who?.ways ?? now.value
    else if (mine === pressed) await session.reload()
  })
  await last
}
let last: Promise<void> = Promise.resolve()
let pressed = 0
</script>

<template>
  <section v-if="now" class="sheet" aria-labelledby="ways">
    <h2 id="ways">How figures are written</h2>
    <WaysFields :ways="now" @change="set" />
    <form class="money" @submit.prevent="set({ currency })">
      <TextField
        label="Money in"
        :value="currency"
        :most="8"
        :problem="form.problemAt('currency')"
        @change="(text: string) => (currency = text)"
        @blur="currency !== now.currency && set({ currency })"
      />
    </form>
    <p v-if="form.trouble.value" class="problem" role="alert">{{ form.trouble.value }}</p>
    <p class="quiet">What is computed stays in grams and °C; a sheet keeps the units it was typed in.</p>
  </section>
</template>

<style scoped>
.money {
  max-width: 160px;
  margin: 10px 0;
}
</style>
