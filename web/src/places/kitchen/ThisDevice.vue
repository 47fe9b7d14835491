<script setup lang="ts">
/** Whether one cook uses this device or several: a shared one stays signed in and asks who is cooking. */
import { NButton } from 'naive-ui'
import { computed } from 'vue'
import { useRouter } from 'vue-router'
import { api, ask } from '@/api/client'
import { useActs } from '@/shell/acts'
import { useForm } from '@/shell/form'
import { useSession } from '@/shell/session'

const emit = defineEmits<{ changed: [] }>()
const session = useSession()
const acts = useActs()
const router = useRouter()
const shared = computed(() => session.who?.shared ?? false)
const { trouble, busy, run } = useForm()

const share = (on: boolean) =>
  run(async () => {
    await ask(api.PUT('/api/people/here/shared', { body: { shared: on } }))
    emit('changed')
  })
async function signOut(): Promise<void> {
  await acts.send()
  const left = `${acts.waiting} acts at the stove are not sent yet. Sign out all the same? They are kept on this device.`
  if (acts.waiting && !window.confirm(left)) return
  await run(async () => {
    await session.leave()
    await router.push('/enter')
  })
}
</script>

<template>
  <section class="sheet">
    <h2>This device</h2>
    <p v-if="shared">
      <b>Several cooks share it.</b> It stays signed in, asks only who is cooking, and what is done carries that name.
      Passwords, people and copies are out of its reach.
    </p>
    <p v-else>
      Signed in as <b>{{ session.who?.username }}</b>. A tablet on the shelf that everybody uses: share it. It then
      stays signed in and asks only who is cooking.
    </p>
    <div class="actions">
      <NButton v-if="shared" size="large" :loading="busy" @click="share(false)">It is mine alone</NButton>
      <NButton v-else size="large" :loading="busy" @click="share(true)">Share this device</NButton>
      <NButton size="large" :loading="busy" @click="signOut">Sign out here</NButton>
    </div>
    <p v-if="trouble" class="problem" role="alert">{{ trouble }}</p>
  </section>
</template>
