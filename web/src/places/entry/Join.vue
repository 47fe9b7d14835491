<script setup lang="ts">
/** Where an invitation leads: a sign-in of one's own, or a new password. */
import { NButton } from 'naive-ui'
import { computed, reactive, ref } from 'vue'
import { useRouter } from 'vue-router'
import { api, ask, type Schemas } from '@/api/client'
import ProblemLine from '@/parts/ProblemLine.vue'
import TextField from '@/parts/TextField.vue'
import { useForm } from '@/shell/form'
import { useSession } from '@/shell/session'
import EntrySheet from './EntrySheet.vue'

const props = defineProps<{ token: string }>()
const session = useSession()
const router = useRouter()
const invited = ref<Schemas['Invited'] | null>(null)
const over = ref('')
const given = reactive({ username: '', called: '', password: '' })
const { trouble, busy, run, problemAt } = useForm()
const renews = computed(() => invited.value?.for_name ?? null)

async function look(): Promise<void> {
  try {
    invited.value = await ask(api.GET('/api/people/join/{token}', { params: { path: { token: props.token } } }))
  } catch {
    over.value = 'This link is over, or was used. Ask whoever sent it for a new one.'
  }
}
void look()
const go = () =>
  run(async () => {
    await ask(api.POST('/api/people/join', { body: { token: props.token, ...given } }))
    await session.reload()
    await router.push('/sauces')
  })
</script>

<template>
  <EntrySheet @submit="go">
    <p v-if="over" class="lead" role="alert">{{ over }}</p>
    <template v-else-if="invited">
      <p class="lead">
        {{ renews ? `A new password for ${renews}, in ` : 'You are invited into ' }}<b>{{ invited.kitchen }}</b
        >.
      </p>
      <template v-if="!renews">
        <TextField
          label="Name to sign in with"
          :value="given.username"
          :most="150"
          autocomplete="username"
          :problem="problemAt('username')"
          @change="given.username = $event"
        />
        <TextField
          label="Called in records"
          :value="given.called"
          :most="60"
          :placeholder="given.username"
          :problem="problemAt('called')"
          @change="given.called = $event"
        />
      </template>
      <TextField
        label="Password"
        type="password"
        :value="given.password"
        autocomplete="new-password"
        :problem="problemAt('password')"
        @change="given.password = $event"
      />
      <ProblemLine :problem="problemAt('token')" subject="The link" />
      <p v-if="trouble" class="problem" role="alert">{{ trouble }}</p>
      <NButton type="primary" size="large" block attr-type="submit" :loading="busy">
        {{ renews ? 'Take the new password' : 'Come in' }}
      </NButton>
    </template>
  </EntrySheet>
</template>
