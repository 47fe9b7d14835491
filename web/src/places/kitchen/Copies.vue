<script setup lang="ts">
/** Copies of everything on the machine that serves: now, and one of each day for a week. */
import { NButton, NCheckbox, useMessage } from 'naive-ui'
import { ref } from 'vue'
import { api, ask, type Schemas } from '@/api/client'
import { day, timeOf } from '@/parts/format'
import { useList } from '@/shell/list'

const message = useMessage()
const told = ref<Schemas['Copies'] | null>(null)
const busy = ref(false)
const { trouble, load, tell } = useList(async () => {
  told.value = await ask(api.GET('/api/whole/copies'))
})
async function make(): Promise<void> {
  busy.value = true
  await tell(async () => {
    await ask(api.POST('/api/whole/copies'))
    message.success('Copied, looked over and sound.')
  })
  busy.value = false
  await load()
}
const daily = (on: boolean) =>
  tell(async () => {
    told.value = await ask(api.PUT('/api/whole/copies', { body: { daily: on } }))
  })
const megabytes = (size: number) => `${(size / 1e6).toFixed(1)} MB`
</script>

<template>
  <section class="sheet">
    <h2>Copies</h2>
    <p v-if="trouble" class="problem" role="alert">{{ trouble }}</p>
    <template v-if="told">
      <p>
        The whole file as it is, sign-ins and all, copied while everybody goes on and looked over before it counts. They
        lie in <code>{{ told.folder }}</code> on the machine that serves: take one elsewhere now and then.
      </p>
      <div class="actions">
        <NButton size="large" :loading="busy" @click="make">Copy everything now</NButton>
      </div>
      <NCheckbox :checked="told.daily" size="large" @update:checked="daily">
        One of each day, for {{ told.days }} days
      </NCheckbox>
      <ul v-if="told.copies.length">
        <li v-for="one in told.copies" :key="one.name">
          <span class="copy">
            <b>{{ day(one.made_at) }}, {{ timeOf(one.made_at) }}</b>
            <span class="quiet">{{ megabytes(one.size) }}</span>
          </span>
          <a v-if="told.alone" :href="`/api/whole/copies/${one.name}`" download>Fetch it</a>
        </li>
      </ul>
      <p v-else class="quiet">None yet.</p>
      <p class="quiet">Back into an empty place: <code>make restore FILE=…</code></p>
    </template>
  </section>
</template>

<style scoped>
ul {
  margin: 0;
  padding: 0;
  list-style: none;
}
li {
  display: flex;
  align-items: center;
  justify-content: space-between;
  min-height: 44px;
  border-top: 1px solid var(--fog2);
}
.copy {
  display: flex;
  gap: 8px;
}
a {
  padding: 10px;
}
code {
  overflow-wrap: anywhere;
}
</style>
