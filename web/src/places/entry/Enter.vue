<script setup lang="ts">
/** Signing in; on the very first visit, making the first account. */
import { NButton } from 'naive-ui'
import { computed, ref } from 'vue'
import { useRoute, useRouter } from 'vue-router'
import { useForm } from '@/shell/form'
import { useSession } from '@/shell/session'
import TextField from '@/parts/TextField.vue'
import EntrySheet from './EntrySheet.vue'

const session = useSession()
const route = useRoute()
const router = useRouter()
const first = computed(() => session.who?.first_visit ?? false)
const kitchen = ref('')
const username = ref('')
const password = ref('')
const { trouble, busy, run, problemAt } = useForm()

const go = () =>
  run(async () => {
    if (first.value) await session.openKitchen(kitchen.value, username.value, password.value)
    else await session.enter(username.value, password.value)
    const next = first.value || !session.who?.begun ? '/begin' : String(route.query.next ?? '/sauces')
    await router.push(next.startsWith('/') && !next.startsWith('//') ? next : '/sauces')
  })
</script>

<template>
  <EntrySheet @submit="go">
    <p v-if="first" class="lead">
      A fresh kitchen. Name it and make your account; everything you save stays on this machine.
    </p>
    <p v-else class="lead">Sauces, weighed before they are cooked.</p>
    <TextField
      v-if="first"
      label="Kitchen"
      :value="kitchen"
      placeholder="The name over the pass"
      :problem="problemAt('kitchen')"
      @change="kitchen = $event"
    />
    <TextField
      label="Name"
      :value="username"
      autocomplete="username"
      :problem="problemAt('username')"
      @change="username = $event"
    />
    <TextField
      label="Password"
      type="password"
      :value="password"
      :autocomplete="first ? 'new-password' : 'current-password'"
      :problem="problemAt('password')"
      @change="password = $event"
    />
    <p v-if="trouble" class="problem" role="alert">{{ trouble }}</p>
    <NButton type="primary" size="large" block attr-type="submit" :loading="busy">
      {{ first ? 'Open the kitchen' : 'Sign in' }}
    </NButton>
  </EntrySheet>
</template>
