<script setup lang="ts">
/** What you are called in records, your password, and every device you are signed in on. */
import { NButton, NInput, useMessage } from 'naive-ui'
import { reactive, ref } from 'vue'
import { useRouter } from 'vue-router'
import { api, ask, type Schemas } from '@/api/client'
import ProblemLine from '@/parts/ProblemLine.vue'
import { useForm } from '@/shell/form'
import { useSession } from '@/shell/session'

const props = defineProps<{ people: Schemas['People'] }>()
const emit = defineEmits<{ changed: [] }>()
const session = useSession()
const router = useRouter()
const message = useMessage()
const called = ref(props.people.people.find((one) => one.you)?.called ?? '')
const password = reactive({ old: '', new: '' })
const name = useForm()
const secret = useForm()

const rename = () =>
  name.run(async () => {
    await ask(api.PUT('/api/people/me/called', { body: { called: called.value } }))
    message.success('Records name you so from now on.')
    emit('changed')
  })
const change = () =>
  secret.run(async () => {
    await ask(api.POST('/api/people/me/password', { body: { ...password } }))
    Object.assign(password, { old: '', new: '' })
    message.success('Changed. Your other devices are signed out.')
  })
const everywhere = () =>
  secret.run(async () => {
    await ask(api.POST('/api/people/me/sign-out-everywhere'))
    await session.leave()
    await router.push('/enter')
  })
</script>

<template>
  <section class="sheet">
    <h2>You</h2>
    <form @submit.prevent="rename">
      <label>
        <span class="label">Called in records</span>
        <NInput
          v-model:value="called"
          placeholder=""
          :maxlength="60"
          :input-props="{ 'aria-label': 'Called in records' }"
        />
        <ProblemLine :problem="name.problemAt('called')" />
      </label>
      <NButton attr-type="submit" :loading="name.busy.value">Call me so</NButton>
    </form>
    <form @submit.prevent="change">
      <label>
        <span class="label">Your password</span>
        <NInput
          v-model:value="password.old"
          type="password"
          placeholder=""
          :input-props="{ autocomplete: 'current-password', 'aria-label': 'Your password' }"
        />
        <ProblemLine :problem="secret.problemAt('old')" />
      </label>
      <label>
        <span class="label">A new one</span>
        <NInput
          v-model:value="password.new"
          type="password"
          placeholder=""
          :input-props="{ autocomplete: 'new-password', 'aria-label': 'A new password' }"
        />
        <ProblemLine :problem="secret.problemAt('new')" />
      </label>
      <div class="actions">
        <NButton attr-type="submit" :loading="secret.busy.value">Change the password</NButton>
        <NButton :loading="secret.busy.value" @click="everywhere">Sign out everywhere</NButton>
      </div>
    </form>
    <p v-if="name.trouble.value || secret.trouble.value" class="problem" role="alert">
      {{ name.trouble.value || secret.trouble.value }}
    </p>
  </section>
</template>

<style scoped>
form {
  display: flex;
  flex-direction: column;
  align-items: stretch;
  gap: 10px;
}
form + form {
  padding-top: 12px;
  border-top: 1px solid var(--fog2);
}
form > :deep(.n-button) {
  align-self: start;
}
</style>
