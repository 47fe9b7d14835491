<script setup lang="ts">
/** Signing in; on the very first visit, making the first account. */
import { NButton, NInput } from 'naive-ui'
import { computed, ref } from 'vue'
import { useRoute, useRouter } from 'vue-router'
import { useForm } from '@/shell/form'
import { useSession } from '@/shell/session'
import ProblemLine from '@/parts/ProblemLine.vue'
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
    const next = String(route.query.next ?? '/sauces')
    await router.push(next.startsWith('/') && !next.startsWith('//') ? next : '/sauces')
  })
</script>

<template>
  <EntrySheet @submit="go">
    <p v-if="first" class="lead">
      A fresh kitchen. Name it and make your account; everything you save stays on this machine.
    </p>
    <p v-else class="lead">Sauces, weighed before they are cooked.</p>
    <label v-if="first">
      <span class="label">Kitchen</span>
      <NInput v-model:value="kitchen" placeholder="The name over the pass" :input-props="{ 'aria-label': 'Kitchen' }" />
      <ProblemLine :problem="problemAt('kitchen')" />
    </label>
    <label>
      <span class="label">Name</span>
      <NInput
        v-model:value="username"
        placeholder=""
        :input-props="{ autocomplete: 'username', 'aria-label': 'Name', autofocus: true }"
      />
      <ProblemLine :problem="problemAt('username')" />
    </label>
    <label>
      <span class="label">Password</span>
      <NInput
        v-model:value="password"
        type="password"
        placeholder=""
        :input-props="{ autocomplete: first ? 'new-password' : 'current-password', 'aria-label': 'Password' }"
      />
      <ProblemLine :problem="problemAt('password')" />
    </label>
    <p v-if="trouble" class="problem" role="alert">{{ trouble }}</p>
    <NButton type="primary" size="large" block attr-type="submit" :loading="busy">
      {{ first ? 'Open the kitchen' : 'Sign in' }}
    </NButton>
  </EntrySheet>
</template>
