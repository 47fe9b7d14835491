<script setup lang="ts">
/** Where an invitation leads: a sign-in of one's own, or a new password. */
import { NButton, NInput } from 'naive-ui'
import { computed, reactive, ref } from 'vue'
import { useRouter } from 'vue-router'
import { api, ask, type Schemas } from '@/api/client'
import ProblemLine from '@/parts/ProblemLine.vue'
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
        <label>
          <span class="label">Name to sign in with</span>
          <NInput
            v-model:value="given.username"
            placeholder=""
            :maxlength="150"
            :input-props="{ autocomplete: 'username', 'aria-label': 'Name to sign in with' }"
          />
          <ProblemLine :problem="problemAt('username')" />
        </label>
        <label>
          <span class="label">Called in records</span>
          <NInput
            v-model:value="given.called"
            :placeholder="given.username"
            :maxlength="60"
            :input-props="{ 'aria-label': 'Called in records' }"
          />
          <ProblemLine :problem="problemAt('called')" />
        </label>
      </template>
      <label>
        <span class="label">Password</span>
        <NInput
          v-model:value="given.password"
          type="password"
          placeholder=""
          :input-props="{ autocomplete: 'new-password', 'aria-label': 'Password' }"
        />
        <ProblemLine :problem="problemAt('password')" />
      </label>
      <ProblemLine :problem="problemAt('token')" subject="The link" />
      <p v-if="trouble" class="problem" role="alert">{{ trouble }}</p>
      <NButton type="primary" size="large" block attr-type="submit" :loading="busy">
        {{ renews ? 'Take the new password' : 'Come in' }}
      </NButton>
    </template>
  </EntrySheet>
</template>
