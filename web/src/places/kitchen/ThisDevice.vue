<script setup lang="ts">
/** Whether one cook uses this device or several: a shared one stays signed in and asks who is cooking. */
import { NButton } from 'naive-ui'
import { computed, ref } from 'vue'
import { useRouter } from 'vue-router'
import { api, ask } from '@/api/client'
import TextField from '@/parts/TextField.vue'
import { useActs } from '@/shell/acts'
import { useForm } from '@/shell/form'
import { useSession } from '@/shell/session'

const emit = defineEmits<{ changed: [] }>()
const session = useSession()
const acts = useActs()
const router = useRouter()
const shared = computed(() => session.who?.shared ?? false)
const password = ref('')
const { trouble, busy, run, problemAt } = useForm()

const share = (on: boolean) =>
  run(async () => {
    await ask(api.PUT('/api/people/here/shared', { body: { shared: on, password: password.value } }))
    password.value = ''
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
    <form v-if="shared" class="back" @submit.prevent="share(false)">
      <TextField
        :label="`Password of ${session.who?.username}, to have it alone again`"
        name="Password"
        type="password"
        :value="password"
        autocomplete="current-password"
        :problem="problemAt('password')"
        @change="password = $event"
      />
      <NButton attr-type="submit" :loading="busy">It is mine alone</NButton>
    </form>
    <div class="actions">
      <NButton v-if="!shared" size="large" :loading="busy" @click="share(true)">Share this device</NButton>
      <NButton size="large" :loading="busy" @click="signOut">Sign out here</NButton>
    </div>
    <p v-if="trouble" class="problem" role="alert">{{ trouble }}</p>
  </section>
</template>

<style scoped>
.back {
  display: flex;
  flex-direction: column;
  gap: 10px;
}
.back > :deep(.n-button) {
  align-self: start;
}
</style>
